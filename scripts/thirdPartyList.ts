import { z } from 'zod';

const lockSchema = z.object({
  packages: z.record(
    z.string(),
    z.object({
      version: z.string().optional(),
      license: z.string().optional(),
      dev: z.boolean().optional(),
      devOptional: z.boolean().optional(),
      link: z.boolean().optional(),
    }),
  ),
});

/** Licences that a package's entry does not name, and why it may be used all the same. */
const explained: Readonly<Record<string, string>> = {
  'xmlhttprequest-ssl':
    'MIT (named in an older form, as a list, in its own package.json and in its file LICENSE; comes with socket.io-client, and is no part of what browsers get)',
};

/**
 * What ships with Heuristor from the package registry, with its licences, as Markdown.
 * @param lock the content of package-lock.json
 * @throws Error where a package names no licence and nothing is said of it
 */
export function thirdPartyList(lock: unknown): string {
  const found = new Map<string, Set<string>>();
  for (const [path, { version, license, dev, devOptional, link }] of Object.entries(
    lockSchema.parse(lock).packages,
  )) {
    if (!path.includes('node_modules/') || dev === true || devOptional === true || link === true) continue;
    const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
    const told = license ?? explained[name];
    if (told === undefined)
      throw new Error(
        `${name} ${version} names no licence: replace it, or say in thirdPartyList.ts why it may be used.`,
      );
    const row = `| ${name} | ${told} |`;
    found.set(row, (found.get(row) ?? new Set()).add(version ?? ''));
  }
  const rows = [...found]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([row, versions]) => row.replace(' |', ` ${[...versions].sort().join(', ')} |`));
  return [
    '# What ships with Heuristor, and its licences',
    '',
    'Made by `npm run third-party` from `package-lock.json`; a test holds it against that. Packages that are only used to build and to',
    'test are not listed. Platform-dependent ones are listed for every platform. PostgreSQL (PostgreSQL License) and, for tests,',
    'Chromium (BSD-3-Clause and others) come from Debian’s packages and are not part of Heuristor.',
    '',
    'The owner of Heuristor has not chosen a licence for Heuristor itself yet.',
    '',
    '| Package | Licence |',
    '| --- | --- |',
    ...rows,
    '',
  ].join('\n');
}
