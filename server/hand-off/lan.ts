import { networkInterfaces } from 'node:os';

/** Addresses of this machine in local networks, those of IPv4 first. */
export function lanAddresses(): string[] {
  const all = Object.values(networkInterfaces()).flatMap((known) => known ?? []);
  const reachable = all.filter(({ internal, address }) => !internal && !address.startsWith('fe80'));
  const of = (family: string) =>
    reachable.filter((one) => one.family === family).map(({ address }) => address);
  return [...of('IPv4'), ...of('IPv6')];
}

/** An address as it stands in a URL. */
export const encodeUrlPart = (address: string): string => (address.includes(':') ? `[${address}]` : address);
