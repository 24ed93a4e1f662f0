import { type AddressInfo, connect } from 'node:net';
import { createServer } from 'node:http';
import { randomUUID } from 'node:crypto';
import { text } from 'node:stream/consumers';
import { newBench } from '../testing/bench';
import { type TestServer, startTestServer } from '../testing/testServer';
import { InvestigationModel } from '../models/investigation';
import { StoredFileModel } from '../models/storedFile';
import { receiveFile } from './storedFiles';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

test('who sends all of a file before reading the answer hears why it was refused', async () => {
  const investigationId = await newBench(server, null);
  const { ownerId: owner } = await InvestigationModel.query().findById(investigationId).throwIfNotFound();
  const id = randomUUID();
  const file = { id, purpose: 'import', owner, investigationId, name: 'large', about: {} };
  const receiving = createServer((request, response) => {
    receiveFile(file, request, 2e6)
      .then(() => response.end('taken'))
      .catch((error: Error) => response.writeHead(413, { Connection: 'close' }).end(error.message));
  }).listen(0, '127.0.0.1');
  const { port } = await new Promise<AddressInfo>((resolve) =>
    receiving.once('listening', () => resolve(receiving.address() as AddressInfo)),
  );
  const body = Buffer.alloc(40e6, '1\n');
  const socket = connect(port, '127.0.0.1');
  await new Promise<void>((resolve, reject) => {
    socket.once('error', reject);
    socket.write(`POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: ${body.length}\r\n\r\n`);
    socket.write(body, () => resolve());
  });
  expect(await text(socket)).toMatch(/^HTTP\/1.1 413 .*A file may have 1\.9\d* MB; this one has more/s);
  expect(await StoredFileModel.query().findById(id)).toBeUndefined();
  receiving.close();
});
