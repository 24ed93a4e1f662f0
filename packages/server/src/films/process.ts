import { cleanFilm } from './cleanedFilm';

// A process of its own for each film: what a file made by anybody does to it ends with it.
const [from, to] = process.argv.slice(2);
process.stdout.write(JSON.stringify(await cleanFilm(from, to)));
