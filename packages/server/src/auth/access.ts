import { timingSafeEqual } from 'node:crypto';
import { type IncomingMessage } from 'node:http';
import { type TLSSocket } from 'node:tls';
import proxyAddr from 'proxy-addr';

/** How requests come here: straight, or through proxies that are named, whose word on where they come from is believed. */
export class Access {
  private readonly trusts: (address: string, place: number) => boolean;

  /**
   * @param proxies addresses or subnets of proxies, such as "127.0.0.1" or "10.1.0.0/16"
   * @param secret what programs show that came with this one; none of them is let in unasked without it
   * @throws TypeError where an address is none
   */
  constructor(
    readonly proxies: readonly string[] = [],
    private readonly secret: string | null = null,
  ) {
    this.trusts = proxies.length === 0 ? () => false : proxyAddr.compile([...proxies]);
  }

  /** Whether it was asked over TLS, here or at a proxy that is trusted. */
  isSecure(request: IncomingMessage): boolean {
    if ((request.socket as TLSSocket).encrypted === true) return true;
    return this.isThroughProxy(request) && firstOf(request, 'x-forwarded-proto') === 'https';
  }

  /** The name and port under which a browser has asked. */
  hostOf(request: IncomingMessage): string | undefined {
    const forwardedHost = this.isThroughProxy(request) ? firstOf(request, 'x-forwarded-host') : undefined;
    return forwardedHost ?? request.headers.host;
  }

  /** Whether it comes from this machine itself, and through nobody. */
  isFromHere(request: IncomingMessage): boolean {
    if (request.headers['x-forwarded-for'] !== undefined || request.headers.forwarded !== undefined)
      return false;
    const address = request.socket.remoteAddress ?? '';
    return address === '::1' || /^(::ffff:)?127\./.test(address);
  }

  /** Whether a program that came with this one is asking; an address says nothing of that. */
  isOwnProgram({ headers }: Pick<IncomingMessage, 'headers'>): boolean {
    const [scheme, value] = (headers.authorization ?? '').split(' ');
    if (this.secret === null || scheme !== 'Basic') return false;
    const shown = Buffer.from(value ?? '', 'base64')
      .toString()
      .split(':')
      .slice(1)
      .join(':');
    const [a, b] = [Buffer.from(shown), Buffer.from(this.secret)];
    return a.length === b.length && timingSafeEqual(a, b);
  }

  private isThroughProxy({ socket }: IncomingMessage): boolean {
    return this.trusts(socket.remoteAddress ?? '', 0);
  }
}

/** The first of the values that a header may list. */
function firstOf({ headers }: IncomingMessage, name: string): string | undefined {
  const value = headers[name];
  const [first] = (Array.isArray(value) ? value[0] : value)?.split(',') ?? [];
  return first?.trim();
}
