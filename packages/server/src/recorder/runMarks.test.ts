import { type Run } from '@heuristor/contracts';
import { type Bus } from '../bus';
import { type Deferred, deferred } from '../deferred';
import { newRecording } from './recording';
import { RunMarks } from './runMarks';
import { type RecorderState } from './state';

const run = { id: 'a', state: 'recording' } as Run;
const going = { phase: 'recording', gaps: [], notes: ['lost'] } as unknown as RecorderState;

/** Marks of one recording, whose storing answers when a test says so. */
function marking() {
  const said: Run[] = [];
  const stored: Deferred<Run>[] = [];
  const recording = { ...newRecording('i', 1), run, state: going };
  const marks = new RunMarks({
    bus: { emit: (...[, one]: [string, Run]) => said.push(one) > 0 } as unknown as Bus,
    isOver: () => false,
    store: () => {
      stored.push(deferred<Run>());
      return stored[stored.length - 1].promise;
    },
  });
  return { said, stored, recording, marks };
}

const passed = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

test('what is marked within a second is stored at once, and said when it is stored', async () => {
  const { said, stored, recording, marks } = marking();
  marks.mark(recording);
  marks.mark(recording);
  await passed(1100);
  expect([stored.length, said]).toEqual([1, []]);
  stored[0].resolve(run);
  await passed(10);
  expect(said).toEqual([run]);
});

test('what is stored only when the run has ended and its end was said is not said any more', async () => {
  const { said, stored, recording, marks } = marking();
  marks.mark(recording);
  await passed(1100);
  recording.state = { phase: 'idle' };
  stored[0].resolve(run);
  await passed(10);
  expect(said).toEqual([]);
});
