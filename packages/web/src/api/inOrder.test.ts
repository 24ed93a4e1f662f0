import { inOrder } from './inOrder';

/** Work that ends when it is asked to. */
function held() {
  let release: (outcome: 'done' | 'refused') => void = () => undefined;
  const outcome = new Promise<'done' | 'refused'>((resolve) => (release = resolve));
  let begun = false;
  const work = async () => {
    begun = true;
    if ((await outcome) === 'refused') throw new Error('refused');
    return 'done';
  };
  return { work, release, hasBegun: () => begun };
}

test.each(['done', 'refused'] as const)(
  'what was asked for later waits for the earlier, be it %p',
  async (outcome) => {
    const [first, second] = [held(), held()];
    const answers = [inOrder(first.work).catch((error: Error) => error.message), inOrder(second.work)];
    await new Promise(setImmediate);
    expect([first.hasBegun(), second.hasBegun()]).toEqual([true, false]);
    first.release(outcome);
    await expect(answers[0]).resolves.toBe(outcome);
    expect(second.hasBegun()).toBe(true);
    second.release('done');
    await expect(answers[1]).resolves.toBe('done');
  },
);
