// A device in plain JavaScript: a thermometer that says hello, sends when it is told to, and stops when it is told to. When its link
// breaks it goes on reading, comes back, and sends again what was lost.
//   node examples/device.mjs [ws://127.0.0.1:4600/link]
// What is said here is told in docs/device-link.md.
import WebSocket from 'ws';

const address = process.argv[2] ?? 'ws://127.0.0.1:4600/link';
const keptSeconds = 10;

const hello = {
  type: 'hello',
  protocol: 'heuristor-link',
  version: 3,
  device: { code: 'J1-S', model: 'Thermometer in JavaScript' },
  streams: [
    {
      key: 'main',
      rates: { lowest: 1, highest: 100, usual: 10 },
      channels: [
        {
          key: 'temperature',
          quantity: 'temperature',
          symbol: 'T',
          unit: 'Cel',
          ranges: [{ key: 'only', low: -50, high: 150, noise: 0.05 }],
        },
      ],
    },
  ],
};

let socket;
/** The stream that it was told to send, with its latest readings and the index of the first of them; null where there is none. */
let stream = null;
/** Since when the link is broken; while it is, readings are kept and not sent. */
let brokenSince = null;

/** A cup of tea that cools down; put the reading of a true sensor here. */
const reading = (seconds) => 20 + 60 * Math.exp(-seconds / 120);

function connect() {
  socket = new WebSocket(address);
  socket.on('open', () => {
    const goesOn = stream === null ? [] : [{ of: 'main', stream: stream.number, from: stream.from }];
    socket.send(JSON.stringify({ ...hello, goesOn }));
  });
  socket.on('message', (data) => hear(JSON.parse(data)));
  socket.on('error', () => {});
  socket.on('close', () => {
    brokenSince ??= performance.now();
    setTimeout(connect, 500);
  });
}

function hear(message) {
  switch (message.type) {
    case 'start':
      stream = { number: message.stream, rate: message.rate, began: performance.now(), from: 0, latest: [] };
      brokenSince = null;
      break;
    case 'go-on': {
      // The server has got everything before this index.
      const from = Math.max(message.from, stream.from);
      read();
      if (stream.from + stream.latest.length > from) send(from);
      brokenSince = null;
      break;
    }
    case 'stop':
      stream = null;
      break;
    case 'refused':
      console.error(message.message);
  }
}

/** Takes as many readings as are due by now; each is taken index / rate seconds after the first one. */
function read() {
  const due = Math.floor(((performance.now() - stream.began) / 1000) * stream.rate) + 1;
  for (let next = stream.from + stream.latest.length; next < due; next++)
    stream.latest.push(reading(next / stream.rate));
  const spare = stream.latest.length - keptSeconds * stream.rate;
  if (spare > 0) {
    stream.latest.splice(0, spare);
    stream.from += spare;
  }
}

/** Sends the readings from an index on. */
function send(from) {
  const values = Float64Array.from(stream.latest.slice(from - stream.from));
  const bytes = Buffer.alloc(16 + values.byteLength);
  bytes.set([0x48, 1, 0, 1]);
  bytes.writeUInt32LE(stream.number, 4);
  bytes.writeUInt32LE(from, 8);
  bytes.writeUInt32LE(values.length, 12);
  Buffer.from(values.buffer).copy(bytes, 16);
  socket.send(bytes);
}

setInterval(() => {
  if (brokenSince !== null && performance.now() - brokenSince > keptSeconds * 1000) stream = null;
  if (stream === null) return;
  const next = stream.from + stream.latest.length;
  read();
  if (brokenSince === null && stream.from + stream.latest.length > next) send(next);
}, 50);
connect();
