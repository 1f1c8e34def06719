import { act, renderHook } from '@testing-library/react-native';
import { useLatest } from './use-latest';

function later<T>(): { promise: Promise<T>; resolve: (value: T) => void; reject: (error: Error) => void } {
  let resolve: (value: T) => void = () => undefined;
  let reject: (error: Error) => void = () => undefined;
  const promise = new Promise<T>((yes, no) => {
    resolve = yes;
    reject = no;
  });
  return { promise, resolve, reject };
}

describe('answers that are asked for again and again', () => {
  it('count where they are to what was asked last, whichever comes first', async () => {
    const taken: string[] = [];
    const { result } = await renderHook(() => useLatest<string>((answer) => taken.push(answer)));
    const [first, second] = [later<string>(), later<string>()];
    const waiting = [result.current(first.promise), result.current(second.promise)];
    second.resolve('second');
    first.resolve('first');
    await Promise.all(waiting);
    expect(taken).toEqual(['second']);
  });

  it('fail where they are still wanted, and come to nothing once the page was left', async () => {
    const taken: string[] = [];
    const { result, unmount } = await renderHook(() => useLatest<string>((answer) => taken.push(answer)));
    const [old, failing, last] = [later<string>(), later<string>(), later<string>()];
    const unwanted = result.current(old.promise);
    const wanted = result.current(failing.promise);
    old.reject(new Error('unwanted'));
    await expect(unwanted).resolves.toBeUndefined();
    failing.reject(new Error('wanted'));
    await expect(wanted).rejects.toThrow('wanted');
    const late = result.current(last.promise);
    await act(() => unmount());
    last.resolve('last');
    await late;
    expect(taken).toEqual([]);
  });
});
