import { type Running, supervise } from './supervise';

/** Something that ends when a test says so. */
class Fake implements Running {
  readonly ended: Promise<void>;
  private end: () => void = () => undefined;
  stopped = false;

  constructor() {
    this.ended = new Promise((resolve) => (this.end = resolve));
  }

  die(): void {
    this.end();
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.end();
  }
}

let said: string[];
beforeEach(() => {
  said = [];
  jest.spyOn(process.stdout, 'write').mockImplementation((text) => {
    said.push(String(text).trim());
    return true;
  });
});
afterEach(() => jest.restoreAllMocks());

const turn = (milliseconds = 0) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Waits until something is so, however busy the machine is. */
async function until(isSo: () => boolean): Promise<void> {
  for (let i = 0; i < 1000 && !isSo(); i++) await turn(20);
  expect(isSo()).toBe(true);
}

test('what ends unasked is started again, and people are told', async () => {
  const [first, second] = [new Fake(), new Fake()];
  const kept = supervise('The server', first, async () => second);
  expect(kept.now()).toBe(first);
  first.die();
  await until(() => kept.now() === second && said.length === 2);
  expect(said).toEqual(['The server ended unexpectedly; starting it again.', 'The server runs again.']);
  await kept.stop();
  expect(second.stopped).toBe(true);
});

test('a start that fails is tried again, and its reason is said in words', async () => {
  const [first, second] = [new Fake(), new Fake()];
  let tries = 0;
  const kept = supervise('The server', first, async () => {
    if (++tries === 1) throw new Error('Port 4600 is taken by another program.');
    return second;
  });
  first.die();
  await until(() => tries === 2);
  expect(said[1]).toBe('The server cannot be started yet: Port 4600 is taken by another program.');
  await kept.stop();
});

test('what is stopped stays stopped, also in the middle of a new start', async () => {
  const [first, late] = [new Fake(), new Fake()];
  let start: ((running: Fake) => void) | null = null;
  const kept = supervise('The database', first, () => new Promise<Fake>((resolve) => (start = resolve)));
  first.die();
  await until(() => start !== null);
  const stopping = kept.stop();
  (start as unknown as (running: Fake) => void)(late);
  await stopping;
  expect(late.stopped).toBe(true);
  expect(said).not.toContain('The database runs again.');
});
