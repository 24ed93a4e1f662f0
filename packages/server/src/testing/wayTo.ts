import { type AddressInfo, type Socket, createConnection, createServer } from 'node:net';

/** A way to the database, or to the server itself, that can be made to hang or to break, as a network may. */
export async function wayTo(address: string) {
  const { hostname, port } = new URL(address);
  const sockets = new Set<Socket>();
  let isHanging = false;
  let isSwallowing = false;
  let isSwallowed: () => void = () => undefined;
  const way = createServer((client) => {
    const server = createConnection(Number(port), hostname);
    for (const socket of [client, server]) {
      sockets.add(socket);
      socket.on('error', () => undefined);
      socket.on('close', () => {
        sockets.delete(socket);
        client.destroy();
        server.destroy();
      });
    }
    client.on('data', (data) => !isHanging && server.write(data));
    server.on('data', (data) => {
      if (isSwallowing) isSwallowed();
      else if (!isHanging) client.write(data);
    });
  });
  await new Promise<void>((resolve) => way.listen(0, '127.0.0.1', resolve));
  const through = new URL(address);
  through.port = String((way.address() as AddressInfo).port);
  return {
    address: through.toString(),
    /** Everything stands still, and no connection breaks. */
    hang: () => void (isHanging = true),
    /** What is asked is done, but no answer comes. Resolves when the first answer has been lost. */
    swallow(): Promise<void> {
      isSwallowing = true;
      return new Promise((resolve) => (isSwallowed = resolve));
    },
    /** What hung is broken off, and new connections go through. */
    mend() {
      isHanging = isSwallowing = false;
      for (const socket of sockets) socket.destroy();
    },
    close() {
      for (const socket of sockets) socket.destroy();
      way.close();
    },
  };
}
