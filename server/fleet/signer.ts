import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';

/** An address can be used for so long, in milliseconds. */
export const LIFE = 10 * 60_000;

/** Signs addresses that can be used for one thing, for a short while, and only while this server lives. */
export class Signer {
  private readonly secret = randomBytes(32);

  /** @returns the address with what proves it. @param address an absolute URL. */
  sign(method: 'GET' | 'PUT', address: string, now = Date.now()): string {
    const url = new URL(address);
    const until = String(now + LIFE);
    url.searchParams.set('until', until);
    url.searchParams.set('proof', this.proof(method, url.pathname, until));
    return url.href;
  }

  /** Tells whether an address was signed for that use and has not expired. */
  isGood(
    method: string,
    pathname: string,
    { until, proof }: { until?: unknown; proof?: unknown },
    now = Date.now(),
  ): boolean {
    if (typeof until !== 'string' || typeof proof !== 'string' || !(Number(until) > now)) return false;
    const wanted = Buffer.from(this.proof(method, pathname, until));
    const given = Buffer.from(proof);
    return wanted.length === given.length && timingSafeEqual(wanted, given);
  }

  private proof(method: string, pathname: string, until: string): string {
    return createHmac('sha256', this.secret).update(`${method} ${pathname} ${until}`).digest('base64url');
  }
}
