import { makePhotograph } from './making';

// A process of its own for each photograph: what a file made by anybody does to it ends with it.
const [from, to, side] = process.argv.slice(2);
process.stdout.write(JSON.stringify(await makePhotograph(from, to, Number(side))));
