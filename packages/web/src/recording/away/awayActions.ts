import { type Prepare } from '@heuristor/contracts';
import { request } from '../../api/client';
import { attemptInOrder } from '../../api/attempt';
import { type History } from '../../investigation/history';

const path = (code: string, id: number) => `/devices/${encodeURIComponent(code)}/away/${id}`;

/** What is done with runs that devices keep by themselves. */
export class AwayActions {
  constructor(
    private readonly place: string,
    private readonly history: History,
  ) {}

  prepare(wanted: Prepare): Promise<boolean> {
    return attemptInOrder(() => request('POST', `${this.place}/away`, wanted));
  }

  fetch(code: string, id: number, end: boolean): Promise<boolean> {
    return attemptInOrder(() => request('POST', `${path(code, id)}/fetch`, { end }));
  }

  cancel(code: string, id: number): Promise<boolean> {
    return attemptInOrder(() => request('DELETE', `${path(code, id)}/fetch`));
  }

  /** Throws a run away; it can be taken back until the device is prepared anew. */
  async discard(code: string, id: number): Promise<void> {
    const send = (isDiscarded: boolean) =>
      attemptInOrder(() =>
        isDiscarded ? request('DELETE', path(code, id)) : request('POST', `${path(code, id)}/restore`),
      );
    if (await send(true))
      this.history.push({
        name: 'discard a kept run',
        undo: () => void send(false),
        redo: () => void send(true),
      });
  }

  restore(code: string, id: number): Promise<boolean> {
    return attemptInOrder(() => request('POST', `${path(code, id)}/restore`));
  }
}
