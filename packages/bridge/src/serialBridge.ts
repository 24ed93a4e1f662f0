import { SerialPort } from 'serialport';
import { BridgeDevice } from './bridgeDevice';
import { type PortWish, foundPorts } from './ports';

const lookMilliseconds = 3000;

interface Held {
  port: SerialPort;
  device: BridgeDevice;
}

/** Opens serial ports as they come, each a device on the link, and lets them go when they are pulled. */
export class SerialBridge {
  private readonly held = new Map<string, Held>();
  /** A code for each port, the same whenever it comes back. */
  private readonly codes = new Map<string, string>();
  private readonly timer: NodeJS.Timeout;

  constructor(
    private readonly url: string,
    private readonly named: readonly PortWish[],
  ) {
    this.timer = setInterval(() => void this.look(), lookMilliseconds);
    void this.look();
  }

  close(): void {
    clearInterval(this.timer);
    for (const { port, device } of this.held.values()) {
      device.close();
      port.close(() => undefined);
    }
  }

  private async look(): Promise<void> {
    const wanted = [...this.named, ...(await foundPorts())];
    for (const wish of wanted) if (!this.held.has(wish.path)) this.open(wish);
  }

  private open({ path, baudRate }: PortWish): void {
    const port = new SerialPort({ path, baudRate, autoOpen: false });
    const name = path.split('/').at(-1) ?? path;
    const device = new BridgeDevice(this.url, this.codeOf(path), `Microcontroller on ${name}`.slice(0, 60));
    this.held.set(path, { port, device });
    const gone = () => {
      device.close();
      this.held.delete(path);
    };
    port.on('data', (data: Buffer) => device.take(data.toString('latin1')));
    port.on('close', gone);
    port.on('error', gone);
    port.open((error) => {
      if (error !== null) gone();
    });
  }

  private codeOf(path: string): string {
    let code = this.codes.get(path);
    if (code === undefined) this.codes.set(path, (code = `U${this.codes.size + 1}-C`));
    return code;
  }
}
