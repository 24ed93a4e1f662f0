import { z } from 'zod';
import { type Bus } from '../bus';
import { readRun } from '../services/runs';
import { giveRoomBack, joinBlocks } from '../services/samples';
import { type JobKind } from './jobKind';

const task = z.object({ run: z.uuid() });

/** A run that has ended: its small blocks are joined, so that it is read fast. */
export const tidyRun = ({ bus }: { bus: Bus }): JobKind<z.infer<typeof task>> => ({
  key: 'tidy-run',
  task,
  attempts: 5,
  async work({ run: id }, { signal, progress }) {
    const { channels } = await readRun(id);
    for (const [i, channel] of channels.entries()) {
      if (signal.aborted) return;
      await joinBlocks(channel.id);
      progress((i + 1) / channels.length);
    }
    await giveRoomBack();
    bus.emit('run', await readRun(id));
  },
});
