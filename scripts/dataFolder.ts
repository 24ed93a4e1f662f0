import { accessSync, constants, existsSync, mkdirSync, statSync, statfsSync } from 'node:fs';
import { PlainFault } from './plain';

/** What the database and its log take at the least, and some more. */
const leastBytes = 100e6;

/** The folder in which everything is kept, made where there is none. @throws PlainFault that says why it cannot be used */
export function openDataFolder(data: string): void {
  const otherwise = 'Name another folder with HEURISTOR_DATA.';
  if (existsSync(data) && !statSync(data).isDirectory())
    throw new PlainFault(
      `${data} is a file, where the data folder should be. Move it away and start again, or name another folder with HEURISTOR_DATA.`,
    );
  try {
    mkdirSync(data, { recursive: true });
    accessSync(data, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why =
      code === 'EROFS'
        ? 'lies on a disk that can only be read'
        : code === 'ENOSPC'
          ? 'cannot be made, since the disk is full'
          : code === 'ENOTDIR' || code === 'EEXIST'
            ? 'cannot be made, since a part of its path is a file'
            : 'cannot be written by this account';
    throw new PlainFault(`The data folder ${data} ${why}. ${otherwise}`);
  }
  const { bavail, bsize } = statfsSync(data);
  if (bavail * bsize < leastBytes)
    throw new PlainFault(
      `The disk of the data folder ${data} has ${Math.floor((bavail * bsize) / 1e6)} MB left, and Heuristor needs ${leastBytes / 1e6} MB to start. Make room on it. ${otherwise}`,
    );
}
