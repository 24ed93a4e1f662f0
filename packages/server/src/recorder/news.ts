import { type RecorderStatus, type Run } from '@heuristor/contracts';

/** What the recorder tells whoever listens. */
export interface RecorderNews {
  run: [run: Run];
  samples: [investigationId: string, frame: Uint8Array];
  waiting: [waiting: boolean];
  status: [investigationId: string, status: RecorderStatus];
  /** A row of runs could not go on. */
  broken: [investigationId: string, sentence: string];
}
