import { type IncomingMessage } from 'node:http';
import { Access } from './access';

const asked = (address: string, headers: Record<string, string> = {}, encrypted = false) =>
  ({ socket: { remoteAddress: address, encrypted }, headers }) as unknown as IncomingMessage;
const shown = (secret: string) => ({
  authorization: `Basic ${Buffer.from(`heuristor:${secret}`).toString('base64')}`,
});

test('only a proxy that is named is believed in what it says of a request', () => {
  const named = new Access(['10.1.0.0/16']);
  const forwarded = { 'x-forwarded-proto': 'https', 'x-forwarded-host': 'lab.school', host: '10.1.2.3:4600' };
  expect(named.isSecure(asked('10.1.2.3', forwarded))).toBe(true);
  expect(named.hostOf(asked('10.1.2.3', forwarded))).toBe('lab.school');
  expect(named.isSecure(asked('10.2.2.3', forwarded))).toBe(false);
  expect(named.hostOf(asked('10.2.2.3', forwarded))).toBe('10.1.2.3:4600');
  expect(new Access().isSecure(asked('127.0.0.1', forwarded))).toBe(false);
  expect(new Access().isSecure(asked('192.168.1.4', {}, true))).toBe(true);
  expect(() => new Access(['the proxy'])).toThrow();
});

test('what came with this program shows its secret; an address shows nothing', () => {
  const access = new Access([], 'a secret of some length');
  expect(access.isOwnProgram(asked('127.0.0.1'))).toBe(false);
  expect(access.isOwnProgram(asked('127.0.0.1', shown('another one of the same le')))).toBe(false);
  expect(access.isOwnProgram(asked('192.168.1.4', shown('a secret of some length')))).toBe(true);
  expect(new Access().isOwnProgram(asked('127.0.0.1', shown('')))).toBe(false);
});

test('a request that was passed on does not come from here', () => {
  const access = new Access(['127.0.0.1']);
  expect(access.isFromHere(asked('::ffff:127.0.0.1'))).toBe(true);
  expect(access.isFromHere(asked('127.0.0.1', { 'x-forwarded-for': '192.168.1.4' }))).toBe(false);
  expect(access.isFromHere(asked('192.168.1.4'))).toBe(false);
});
