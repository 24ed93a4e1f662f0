import { usualPlan } from '@heuristor/contracts';
import { createStore } from 'zustand/vanilla';
import { History } from '../../investigation/history';
import { PlanActions } from './planActions';
import { type Documents } from '../../investigation/state';

/** A server that answers when a test says so. */
class SlowServer {
  readonly asked: { body: unknown; answer: (status: number) => void }[] = [];

  readonly fetch = (_path: string, { body }: { body: string }): Promise<Response> =>
    new Promise((resolve) =>
      this.asked.push({
        body: JSON.parse(body),
        answer: (status) =>
          resolve(
            status === 204
              ? new Response(null, { status })
              : Response.json({ error: { code: 'invalid-request', message: 'It does not do.' } }, { status }),
          ),
      }),
    );
}

const turns = () => new Promise((resolve) => setTimeout(resolve, 5));

function bench() {
  const server = new SlowServer();
  globalThis.fetch = server.fetch as unknown as typeof fetch;
  const documents = createStore<Pick<Documents, 'name' | 'plan'>>(() => ({ name: 'Buoy', plan: usualPlan }));
  const history = new History();
  const keeper = new PlanActions('/investigations/i', history, documents as never);
  return { server, documents, history, keeper };
}

const { fetch: before } = globalThis;
afterEach(() => {
  globalThis.fetch = before;
});

test('a change is shown at once, stored, and taken back by undo', async () => {
  const { server, documents, history, keeper } = bench();
  const done = keeper.rename('Bell');
  expect(documents.getState().name).toBe('Bell');
  await turns();
  server.asked[0].answer(204);
  await done;
  history.undo();
  await turns();
  expect(documents.getState().name).toBe('Buoy');
  expect(server.asked.map(({ body }) => body)).toEqual([{ name: 'Bell' }, { name: 'Buoy' }]);
  server.asked[1].answer(204);
  await turns();
});

test('a change that is refused is put back, and is no step of undo', async () => {
  const { server, documents, history, keeper } = bench();
  const done = keeper.change({ practice: true });
  expect(documents.getState().plan.practice).toBe(true);
  await turns();
  server.asked[0].answer(400);
  await done;
  expect(documents.getState().plan.practice).toBe(false);
  history.undo();
  await turns();
  expect(server.asked).toHaveLength(1);
});

test('what another screen changed waits for what is on its way from here, and then stands', async () => {
  const { server, documents, keeper } = bench();
  const done = keeper.change({ practice: true });
  await turns();
  keeper.hear({ name: 'Theirs', plan: { ...usualPlan, practice: true, times: 3 } });
  expect(documents.getState().name).toBe('Buoy');
  server.asked[0].answer(204);
  await done;
  expect(documents.getState()).toMatchObject({ name: 'Theirs', plan: { practice: true, times: 3 } });
  keeper.hear({ name: 'At once', plan: usualPlan });
  expect(documents.getState().name).toBe('At once');
});
