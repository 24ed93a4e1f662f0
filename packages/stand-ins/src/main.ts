import { clockAt } from '@heuristor/contracts';
import { rigs } from './rigs';
import { StandIns } from './standIns';

const url = process.env.HEURISTOR_LINK;
if (url === undefined) {
  process.stderr.write(
    'Set HEURISTOR_LINK to the address of the device link, e.g. ws://127.0.0.1:4600/link\n',
  );
  process.exit(2);
}

const seed = Number(process.env.HEURISTOR_SEED ?? Date.now() % 1_000_000);
// With the same seed, the same noise: of each device, from its start on.
process.stdout.write(`What chance does begins with HEURISTOR_SEED=${seed}\n`);
const standIns = new StandIns(
  url,
  rigs.map((make) => make()),
  seed,
  // For tests: so many times as fast as on the wall, as for the server.
  clockAt(Number(process.env.HEURISTOR_PACE ?? 1)),
);
// For rehearsing what a class does to cables: seconds between two pulled plugs, on average.
const loose = Number(process.env.HEURISTOR_LOOSE_PLUGS ?? 0);
if (loose > 0) standIns.loosenPlugs(loose);

// "disconnect": whoever started this process is gone, and nobody else would end it.
for (const event of ['SIGINT', 'SIGTERM', 'disconnect'] as const)
  process.on(event, () => {
    standIns.close();
    process.exit(0);
  });
