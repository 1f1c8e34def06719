import { leaveWork, takeWork, keepWorkOpen } from './tabs';
import type { HeldLock } from './locks';

/** Locks that another tab holds until they are stolen. */
const mockLocks = { asked: [] as string[], waits: [] as ((kept: HeldLock | null) => void)[] };
const mockKept = (): HeldLock => ({ release: () => undefined, ended: new Promise(() => undefined) });
jest.mock('./locks', () => ({
  keepLock: (_name: string, how: string) => {
    mockLocks.asked.push(how);
    if (how === 'now') return Promise.resolve(null);
    if (how === 'steal') return Promise.resolve(mockKept());
    return new Promise((resolve) => mockLocks.waits.push(resolve));
  },
}));

const listener = { onGained: jest.fn(), onLost: jest.fn() };
const settled = () => jest.advanceTimersByTimeAsync(0);

beforeEach(() => {
  jest.useFakeTimers();
  mockLocks.asked.length = 0;
  mockLocks.waits.length = 0;
});
afterEach(() => {
  leaveWork('job');
  jest.useRealTimers();
});

describe('a job that another tab works on', () => {
  it('is taken from one that does not answer', async () => {
    await takeWork('job', listener);
    keepWorkOpen('job', listener);
    await jest.advanceTimersByTimeAsync(6000);
    expect(mockLocks.asked).toEqual(['now', 'wait', 'steal']);
  });

  it('is not taken once more where it was handed over, and back again', async () => {
    await takeWork('job', listener);
    keepWorkOpen('job', listener);
    mockLocks.waits[0]?.(mockKept());
    await settled();
    // The other tab asks for it, and works on it again.
    leaveWork('job');
    await takeWork('job', listener);
    await jest.advanceTimersByTimeAsync(60_000);
    expect(mockLocks.asked).not.toContain('steal');
  });
});
