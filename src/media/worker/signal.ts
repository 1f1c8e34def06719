/** Wakes whoever waits for something to happen. */
export class Signal {
  private wake: () => void = () => undefined;
  private waiting = this.next();

  ring(): void {
    const { wake } = this;
    this.waiting = this.next();
    wake();
  }

  /** Settles at the next ring. */
  rung(): Promise<void> {
    return this.waiting;
  }

  private next(): Promise<void> {
    return new Promise((resolve) => (this.wake = resolve));
  }
}
