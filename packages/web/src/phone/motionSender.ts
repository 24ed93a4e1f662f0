const packMilliseconds = 200;
/** Packs that could not be sent are let go beyond this: a phone that was away for long does not catch up for ever. */
const mostWaiting = 2000;

interface Reading {
  at: number;
  x: number;
  y: number;
  z: number;
}

type AskedFor = typeof DeviceMotionEvent & { requestPermission?: () => Promise<string> };

/** Asks the phone for leave to measure; answers why it cannot, or null. */
export async function canMeasure(): Promise<string | null> {
  if (typeof DeviceMotionEvent === 'undefined')
    return 'This browser has no sensor of acceleration, or keeps it from pages like this one.';
  const { requestPermission } = DeviceMotionEvent as AskedFor;
  if (requestPermission === undefined) return null;
  try {
    return (await requestPermission()) === 'granted'
      ? null
      : 'The phone does not allow pages to measure. Allow it in its settings.';
  } catch {
    return 'The phone does not let this page measure. It may want the page to be opened by https.';
  }
}

/** Posts what the phone measures, as packs of SenML (RFC 8428), five times a second. */
export class MotionSender {
  private readings: Reading[] = [];
  private sent = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private isSending = false;

  constructor(
    private readonly token: string,
    private readonly onSent: (count: number) => void,
    private readonly onFault: (sentence: string) => void,
  ) {}

  start(): void {
    window.addEventListener('devicemotion', this.hear);
    this.timer = setInterval(() => void this.send(), packMilliseconds);
  }

  stop(): void {
    window.removeEventListener('devicemotion', this.hear);
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
  }

  private readonly hear = ({ accelerationIncludingGravity: felt }: DeviceMotionEvent): void => {
    if (felt?.x == null || felt.y === null || felt.z === null) return;
    this.readings.push({ at: Date.now() / 1000, x: felt.x, y: felt.y, z: felt.z });
    if (this.readings.length > mostWaiting) this.readings.shift();
  };

  /** Heuristor was away for a moment; what was measured goes with the next pack. */
  private keep(readings: readonly Reading[]): void {
    this.readings = [...readings, ...this.readings].slice(-mostWaiting);
  }

  private async send(): Promise<void> {
    if (this.isSending || this.readings.length === 0) return;
    this.isSending = true;
    const { readings } = this;
    this.readings = [];
    try {
      const response = await fetch('/api/senml', {
        method: 'POST',
        headers: { Authorization: `Bearer ${this.token}`, 'Content-Type': 'application/senml+json' },
        body: JSON.stringify(packOf(readings)),
      });
      if (response.status === 401) {
        this.stop();
        this.onFault('This phone is not let in any more. Forget this Heuristor, and type a new code.');
      } else if (response.ok) this.onSent((this.sent += readings.length));
      else if (response.status >= 500) this.keep(readings);
      else {
        this.stop();
        this.onFault(
          `Heuristor does not take what this phone measures (${response.status}). Press Measure again.`,
        );
      }
    } catch {
      this.keep(readings);
    } finally {
      this.isSending = false;
    }
  }
}

/** Readings as a pack: one record an axis and a moment, times from the first one on. */
export function packOf(readings: readonly Reading[]): object[] {
  const [{ at: first }] = readings;
  return readings.flatMap(({ at, x, y, z }, i) =>
    [
      { n: 'ax', v: x },
      { n: 'ay', v: y },
      { n: 'az', v: z },
    ].map((record, axis) => ({
      ...(i === 0 && axis === 0 ? { bt: first, bu: 'm/s2' } : {}),
      ...record,
      t: Number((at - first).toFixed(4)),
    })),
  );
}
