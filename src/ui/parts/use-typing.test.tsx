import { act, renderHook } from '@testing-library/react-native';
import { useTyping } from './use-typing';

/** A test has no page: what the page would tell is told by hand. */
const told = new Map<string, () => void>();
const page = {
  addEventListener: (name: string, hear: () => void) => void told.set(name, hear),
  removeEventListener: (name: string) => void told.delete(name),
};
beforeAll(() => {
  jest.useFakeTimers();
  Object.assign(window, page);
  Object.assign(globalThis, { document: page });
});
afterAll(() => jest.useRealTimers());

const shown: string[] = [];
const kept: [string, string][] = [];
beforeEach(() => {
  shown.length = 0;
  kept.length = 0;
});

const typing = (of = 'a') =>
  renderHook(
    ({ of, text }: { of: string; text: string }) =>
      useTyping(of, text, {
        show: (typed) => shown.push(typed),
        keep: (typed) => kept.push([of, typed]),
      }),
    { initialProps: { of, text: 'as it was' } },
  );

describe('a text that is typed', () => {
  it('is shown at every key, and kept once when the hand rests', () => {
    const { result } = typing();
    for (const text of ['K', 'Ki', 'Kit']) act(() => result.current.type(text));
    expect(shown).toEqual(['K', 'Ki', 'Kit']);
    expect(result.current.text).toBe('Kit');
    expect(kept).toEqual([]);
    act(() => jest.runAllTimers());
    expect(kept).toEqual([['a', 'Kit']]);
    expect(result.current.text).toBe('as it was');
  });

  it('is kept at once when the field is left, the page goes out of sight, or it is no more', () => {
    const { result, unmount } = typing();
    act(() => result.current.type('left'));
    act(() => result.current.leave());
    act(() => result.current.type('hidden'));
    act(() => told.get('visibilitychange')?.());
    act(() => result.current.type('gone'));
    unmount();
    act(() => jest.runAllTimers());
    expect(kept.map(([, text]) => text)).toEqual(['left', 'hidden', 'gone']);
    expect(told.size).toBe(0);
  });

  it('is kept where it belongs when another takes its place', () => {
    const { result, rerender } = typing();
    act(() => result.current.type('of the first'));
    rerender({ of: 'b', text: 'of the second' });
    expect(kept).toEqual([['a', 'of the first']]);
    expect(result.current.text).toBe('of the second');
  });
});
