/** Something that will be done; it can be called off. */
export interface Timer {
  cancel(): void;
  /** A process need not wait for it to end. */
  unref(): Timer;
}

/**
 * Time as it passes for devices and for what records them, in milliseconds. It is handed to whoever waits or measures, so that tests
 * let it pass faster than on the wall.
 */
export interface Clock {
  /** Since some moment; never goes back. */
  now(): number;
  /** Since the beginning of 1970. */
  date(): number;
  after(milliseconds: number, work: () => void): Timer;
  every(milliseconds: number, work: () => void): Timer;
  pause(milliseconds: number): Promise<void>;
}

/** Node's timers can be left out of account when a process ends; those of a browser cannot. */
const unrefOf = (timer: unknown): void => {
  if (typeof timer === 'object' && timer !== null && 'unref' in timer && typeof timer.unref === 'function')
    (timer.unref as () => void).call(timer);
};

/**
 * A clock that runs so many times as fast as the one of the machine, from now on.
 * @param pace 1 is the time on the wall
 */
export function clockAt(pace: number): Clock {
  const began = performance.now();
  const date = Date.now();
  const now = () => began + (performance.now() - began) * pace;
  const timerOf = <T>(timer: T, clear: (timer: T) => void): Timer => {
    const handle: Timer = {
      cancel: () => clear(timer),
      unref: () => {
        unrefOf(timer);
        return handle;
      },
    };
    return handle;
  };
  return {
    now,
    date: () => (pace === 1 ? Date.now() : date + (now() - began)),
    after: (milliseconds, work) => timerOf(setTimeout(work, milliseconds / pace), clearTimeout),
    every: (milliseconds, work) => timerOf(setInterval(work, milliseconds / pace), clearInterval),
    pause: (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds / pace)),
  };
}

/** The time on the wall. */
export const wallClock: Clock = clockAt(1);
