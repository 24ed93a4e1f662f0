// A device in plain JavaScript: a thermometer that says hello, sends when it is told to, and stops when it is told to.
//   node examples/device.mjs [ws://127.0.0.1:4600/link]
// What is said here is told in docs/device-link.md.
import WebSocket from 'ws';

const socket = new WebSocket(process.argv[2] ?? 'ws://127.0.0.1:4600/link');
let timer;

socket.on('open', () =>
  socket.send(
    JSON.stringify({
      type: 'hello',
      protocol: 'heuristor-link',
      version: 2,
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
    }),
  ),
);

socket.on('message', (data) => {
  const message = JSON.parse(data);
  if (message.type === 'refused') console.error(message.message);
  if (message.type === 'start' || message.type === 'stop') clearInterval(timer);
  if (message.type !== 'start') return;
  const began = performance.now();
  let sent = 0;
  timer = setInterval(() => {
    // As many readings as are due by now; each is taken sent / rate seconds after the first one.
    const due = Math.floor(((performance.now() - began) / 1000) * message.rate) + 1;
    if (due > sent) socket.send(frame(message.stream, sent, readings(sent, due, message.rate)));
    sent = due;
  }, 50);
});

/** A cup of tea that cools down; put the reading of a true sensor here. */
const readings = (from, to, rate) =>
  Float64Array.from({ length: to - from }, (_, i) => 20 + 60 * Math.exp(-(from + i) / rate / 120));

function frame(stream, firstIndex, values) {
  const bytes = Buffer.alloc(16 + values.byteLength);
  bytes.set([0x48, 1, 0, 1]);
  bytes.writeUInt32LE(stream, 4);
  bytes.writeUInt32LE(firstIndex, 8);
  bytes.writeUInt32LE(values.length, 12);
  Buffer.from(values.buffer).copy(bytes, 16);
  return bytes;
}
