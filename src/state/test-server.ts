/** An answer of the server, as `fetch` gives one. */
export const respond = (status: number, body: unknown): Response =>
  ({ ok: status < 400, status, json: () => Promise.resolve(body) }) as Response;

/** In the place of the browser's event sources: what tests let them hear. */
export class FakeEvents {
  static last: FakeEvents | null = null;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  closed = false;

  constructor(readonly address: string) {
    FakeEvents.last = this;
  }

  close(): void {
    this.closed = true;
  }

  tell(what: unknown): void {
    this.onmessage?.({ data: JSON.stringify(what) });
  }

  /** Puts it in the browser's place. @returns the one that was opened last. */
  static install(): () => FakeEvents {
    Object.assign(globalThis, { EventSource: FakeEvents });
    return () => {
      if (!FakeEvents.last) throw new Error('nobody listens');
      return FakeEvents.last;
    };
  }
}
