import { X509Certificate } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';

/** What a server over TLS shows, in PEM. */
export interface Certificate {
  key: string;
  cert: string;
}

const years = 5;
/** Made anew where it would run out within so many days. */
const leastDays = 60;

/** Names and addresses under which this machine is reached. */
const ownNames = () => ({
  names: ['localhost', hostname(), `${hostname()}.local`],
  addresses: [
    '127.0.0.1',
    ...Object.values(networkInterfaces())
      .flatMap((all) => all ?? [])
      .filter(({ family, internal }) => family === 'IPv4' && !internal)
      .map(({ address }) => address),
  ],
});

/** The certificate of this installation, from its data folder; made there once where there is none. */
export async function ownCertificate(folder: string): Promise<Certificate> {
  const [keyFile, certFile] = [join(folder, 'tls-key.pem'), join(folder, 'tls-certificate.pem')];
  if (existsSync(keyFile) && existsSync(certFile)) {
    const kept = { key: readFileSync(keyFile, 'utf8'), cert: readFileSync(certFile, 'utf8') };
    if (daysLeft(kept.cert) > leastDays) return kept;
  }
  const { names, addresses } = ownNames();
  const made = await generate([{ name: 'commonName', value: 'Heuristor' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + years * 365 * 86_400_000),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: [
          ...names.map((value) => ({ type: 2 as const, value })),
          ...addresses.map((ip) => ({ type: 7 as const, ip })),
        ],
      },
    ],
  });
  writeFileSync(keyFile, made.private, { mode: 0o600 });
  writeFileSync(certFile, made.cert);
  return { key: made.private, cert: made.cert };
}

const daysLeft = (cert: string): number =>
  (new Date(new X509Certificate(cert).validTo).getTime() - Date.now()) / 86_400_000;

/** What a browser shows of a certificate, to be held against it: SHA-256 in pairs of hexadecimal digits. */
export const fingerprintOf = (cert: string): string => new X509Certificate(cert).fingerprint256;
