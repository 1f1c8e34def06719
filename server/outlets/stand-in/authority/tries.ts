/** Wrong passwords in a row before a login waits, and how long it waits, in milliseconds (OWASP ASVS 5.0, 6.3.1). */
const MAX_TRIES = 10;
const WAIT = 60_000;
/** Logins that are remembered. */
const MAX_LOGINS = 1000;

/** Counts wrong passwords of each login, so that nobody guesses on and on. */
export class Tries {
  private readonly failures = new Map<string, { count: number; last: number }>();

  constructor(private readonly now: () => number = Date.now) {}

  mayTry(login: string): boolean {
    const { count = 0, last = 0 } = this.failures.get(login) ?? {};
    return count < MAX_TRIES || this.now() - last > WAIT;
  }

  failed(login: string): void {
    const { count = 0, last = 0 } = this.failures.get(login) ?? {};
    const isOld = this.now() - last > WAIT;
    this.failures.delete(login);
    this.failures.set(login, { count: isOld ? 1 : count + 1, last: this.now() });
    const [oldest] = this.failures.keys();
    if (this.failures.size > MAX_LOGINS && oldest !== undefined) this.failures.delete(oldest);
  }
}
