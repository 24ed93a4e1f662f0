import { SerialPort } from 'serialport';

export interface PortWish {
  path: string;
  baudRate: number;
}

const usualBaudRate = 115_200;

/** Ports that somebody has named: paths with commas between them, each with its baud rate after an @, where it is not 115 200. */
export function namedPorts(text: string): PortWish[] {
  return text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const [path, rate] = part.split('@');
      const baudRate = rate === undefined ? usualBaudRate : Number(rate);
      if (!Number.isInteger(baudRate) || baudRate < 50)
        throw new Error(`“${rate}” is no baud rate. Name a port like /dev/ttyUSB0@9600.`);
      return { path, baudRate };
    });
}

/** Ports behind which a microcontroller seems to sit: those that say whose they are. None where the system cannot tell. */
export async function foundPorts(): Promise<PortWish[]> {
  try {
    const ports = await SerialPort.list();
    return ports
      .filter(({ vendorId }) => vendorId !== undefined)
      .map(({ path }) => ({ path, baudRate: usualBaudRate }));
  } catch {
    return [];
  }
}
