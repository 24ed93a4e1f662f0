import { mkdirSync, readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { resolve } from 'node:path';
import {
  type Line,
  type RunData,
  Evaluator,
  derivative,
  parseUnit,
  readingsSeries,
  relations,
  thinForDrawing,
} from '@heuristor/core';
import { decodeFrame, frameKinds } from '@heuristor/contracts';
import { createInvestigation, issueLinkToken, openDatabase } from '@heuristor/server';
import WebSocket from 'ws';
import { FakeDevice } from '../packages/server/src/testing/fakeDevice';
import { startCluster } from './cluster';
import { runScript, say } from './plain';
import { startServer } from './system';

interface Figure {
  what: string;
  measured: string;
  budget: string;
  ratio?: string;
}

const metre = parseUnit('m');
const second = parseUnit('s');

/** The middle of several runs of `work`, in ms, after two to warm up. */
function median(work: () => void, repeats = 9): number {
  const times: number[] = [];
  for (let i = 0; i < repeats + 2; i++) {
    const began = performance.now();
    work();
    if (i >= 2) times.push(performance.now() - began);
  }
  return times.sort((a, b) => a - b)[times.length >> 1];
}

const quantile = (sorted: readonly number[], share: number) =>
  sorted[Math.min(Math.floor(sorted.length * share), sorted.length - 1)];
const milliseconds = (value: number) => `${value.toFixed(1)} ms`;

function sampled(count: number, interval: number, value: (t: number) => number) {
  const times = new Float64Array(count).map((_, i) => i * interval);
  return readingsSeries({
    symbol: 'x',
    quantity: 'position',
    unit: metre,
    times,
    timeUnit: second,
    values: times.map(value),
    interval,
  });
}

function computation(): Figure[] {
  const noisy = (t: number) => 0.04 * Math.sin(5.3 * t) + 0.0003 * Math.sin(t * 12_345.678);
  const large = sampled(1_000_000, 0.001, noisy);
  const plainSum = median(() => {
    let sum = 0;
    for (let i = 0; i < large.values.length; i++) sum += large.values[i];
    return sum;
  });
  const derived = median(() => void derivative(large, { symbol: 'v', windowPoints: 9 }));
  const swing = sampled(100_000, 0.001, noisy);
  const sine = median(() => void relations.sine.solve({ x: swing.times, y: swing.values }), 5);
  const thinned = median(() => void thinForDrawing(large.times, large.values, 0, 1_000_000, 650));

  const onA = { region: 'A', name: '', of: 'channel:x', against: 't' } as const;
  const lines = (end: number): Line[] => [
    { kind: 'region', id: 'A', name: '', letter: 'A', along: 't', start: 20, end },
    { kind: 'derivative', id: 'v', name: 'v', of: 'channel:x', windowPoints: 9 },
    { ...onA, kind: 'statistics', id: '1' },
    { ...onA, kind: 'slope', id: '2' },
    { ...onA, kind: 'area', id: '3' },
    { ...onA, kind: 'fit', id: '4', relation: 'line', showResiduals: false },
    { ...onA, kind: 'fit', id: '5', relation: 'parabola', showResiduals: false },
    { ...onA, kind: 'fit', id: '6', relation: 'sine', showResiduals: false },
    { ...onA, kind: 'statistics', id: '7', of: 'line:v' },
    { ...onA, kind: 'slope', id: '8', of: 'line:v' },
    { ...onA, kind: 'area', id: '9', of: 'line:v' },
    { ...onA, kind: 'slope', id: '10', of: 'line:v', against: 'channel:x' },
  ];
  const evaluators = Array.from({ length: 10 }, (_, i) => {
    const series = sampled(10_000, 0.02, (t) => noisy(t + i));
    const run: RunData = { id: String(i), channels: [{ ...series, key: 'x', low: null, high: null }] };
    return new Evaluator(run);
  });
  let end = 150;
  const drag = median(() => {
    end += 0.1;
    for (const evaluator of evaluators) evaluator.evaluate({ lines: lines(end) });
  });
  return [
    {
      what: 'derivative of 10⁶ points',
      measured: milliseconds(derived),
      budget: '30 ms',
      ratio: `${(derived / plainSum).toFixed(1)} × a plain sum of them`,
    },
    { what: 'sine fit of 10⁵ points, guess included', measured: milliseconds(sine), budget: '150 ms' },
    {
      what: 'region dragged: 10 results over 10 runs of 10⁴ points',
      measured: milliseconds(drag),
      budget: '33 ms',
    },
    {
      what: 'thinning 10⁶ points for the screen, one trace',
      measured: milliseconds(thinned),
      budget: '16 ms for three traces',
      ratio: `${(thinned / plainSum).toFixed(1)} × a plain sum`,
    },
  ];
}

/** From a sample's leaving the device to its arrival at screens: one device, `screens` sockets, on the real server. */
async function liveStream(screens: number, rate: number): Promise<Figure[]> {
  const data = resolve('.test-data');
  mkdirSync(data, { recursive: true });
  const cluster = await startCluster(data);
  const name = `bench_${Date.now()}`;
  const knex = await openDatabase(cluster.address);
  await knex.raw(`create database ${name}`);
  await knex.destroy();
  const database = cluster.address.replace(/\/[^/]*$/, `/${name}`);
  const bound = await openDatabase(database);
  const token = await issueLinkToken();
  const investigation = await createInvestigation('bench');
  const server = await startServer(database, 0, data);
  try {
    const site = `http://127.0.0.1:${server.port}`;
    const signIn = await fetch(`${site}/api/sign-in`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ token }),
    });
    const cookie = signIn.headers.getSetCookie()[0].split(';')[0];
    const api = (method: string, path: string, body: object) =>
      fetch(`${site}/api${path}`, {
        method,
        headers: { 'Content-Type': 'application/json', Cookie: cookie },
        body: JSON.stringify(body),
      });
    // Every reading is the moment at which it was made, so that any screen can tell its age.
    const device = await FakeDevice.connect(server.port, 'Z1-Z', () => performance.now() / 1000);
    await api('PATCH', '/devices/Z1-Z', { connected: true, rate });
    await api('PATCH', `/investigations/${investigation}`, { plan: { lengthSeconds: null } });
    await new Promise((done) => setTimeout(done, 500));
    const ages: number[] = [];
    const sockets = Array.from({ length: screens }, () => {
      const socket = new WebSocket(`ws://127.0.0.1:${server.port}/live`, { headers: { Cookie: cookie } });
      socket.on('open', () => socket.send(JSON.stringify({ type: 'watch', investigation, stages: false })));
      socket.on('message', (bytes, isBinary) => {
        if (!isBinary) return;
        const frame = decodeFrame(bytes as Buffer);
        if (frame.kind === frameKinds.run)
          ages.push(performance.now() - frame.values[frame.values.length - 1] * 1000);
      });
      return socket;
    });
    await new Promise((done) => setTimeout(done, 500));
    await api('POST', `/investigations/${investigation}/recording`, {});
    await new Promise((done) => setTimeout(done, 6000));
    const memory =
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))?.[1]) / 1024;
    await api('DELETE', `/investigations/${investigation}/recording`, {});
    for (const socket of sockets) socket.terminate();
    device.vanish();
    ages.sort((a, b) => a - b);
    return [
      {
        what: `sample sent → at ${screens} watching screens (1 channel, ${rate} Hz)`,
        measured: `95 % within ${milliseconds(quantile(ages, 0.95))}`,
        budget: '95 % within 150 ms (8 channels × 1 kHz, drawn)',
      },
      {
        what: 'memory of the server while recording',
        measured: `${memory.toFixed(0)} MB`,
        budget: 'under 300 MB',
      },
    ];
  } finally {
    await server.stop();
    await bound.destroy();
    await cluster.stop();
  }
}

runScript(async () => {
  const figures = [...computation(), ...(await liveStream(40, 100))];
  for (const { what, measured, budget, ratio } of figures)
    say(`${what}\n    ${measured}   (budget: ${budget})${ratio === undefined ? '' : `   ${ratio}`}`);
  process.exit(0);
});
