import { dirname, extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/**
 * Where the program of a thread lies: beside this one, as its source or, where the server was built, as what was built of it.
 * @param part its place in the server's sources, without an ending
 */
export function threadProgram(part: string): { filename: string; execArgv: string[] } {
  const own = fileURLToPath(import.meta.url);
  return {
    filename: join(dirname(own), part + extname(own)),
    execArgv: extname(own) === '.ts' ? ['--import', 'tsx'] : ['--enable-source-maps'],
  };
}
