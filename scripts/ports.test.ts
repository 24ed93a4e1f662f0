import { createServer } from 'node:net';
import { freePort, portIsFree } from './ports';

test('a port that is listened on is not free, and the next free one is found', async () => {
  const server = createServer();
  const port = await new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address !== null ? address.port : 0);
    }),
  );
  expect(await portIsFree(port)).toBe(false);
  expect(await freePort(port)).toBeGreaterThan(port);
  await new Promise((resolve) => server.close(resolve));
  expect(await portIsFree(port)).toBe(true);
});
