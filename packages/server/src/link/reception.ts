import { type Clock, type SampleFrame } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { type LinkedStream } from './device';

/**
 * Takes a frame of a stream, and tells whoever listens; what cannot be is left out, and said.
 * @returns whether the device may go on
 */
export function takeFrame(
  { bus, clock }: { bus: Bus; clock: Clock },
  stream: LinkedStream,
  frame: SampleFrame,
): boolean {
  const { device } = stream;
  const verdict = stream.accept(frame, clock.now());
  switch (verdict.kind) {
    case 'passed over':
      return true;
    case 'taken':
      bus.emit('readings', stream, frame, verdict.frame);
      return true;
    case 'impossible': {
      const place =
        frame.times === null ? `with the number ${verdict.index}` : `for the time ${verdict.seconds} s`;
      bus.emit(
        'remark',
        device,
        `${device.code} sent a reading ${place}, which it cannot have taken yet; it was left out.`,
      );
      return false;
    }
    case 'wrong-pace': {
      const asked = stream.sending?.rate ?? stream.rate;
      const found =
        frame.times === null
          ? `sends about ${Number((verdict.pace * asked).toPrecision(2))} readings a second where ${asked} were set`
          : `has a clock that runs ${Number(verdict.pace.toPrecision(2))} times as fast as this computer's`;
      bus.emit(
        'doubt',
        device,
        `${device.code} ${found}; its part ends here, since its times cannot be trusted.`,
      );
      device.start(stream, clock.now());
      return false;
    }
  }
}
