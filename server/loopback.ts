/** Names that lead to this machine's own loopback, as a URL writes them. */
const LOOPBACK_HOSTS: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]']);

/** Tells whether a host name is this machine's loopback. @param host without its port. */
export const isLoopback = (host: string): boolean => LOOPBACK_HOSTS.has(host.toLowerCase());
