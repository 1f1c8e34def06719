import { fireEvent, render, screen } from '@testing-library/react-native';
import type { ComponentProps } from 'react';
import type { Rate } from '@core/rate/encoding';
import { RateFields } from './rate-fields';

const NO_USE = /no use for so much/;

/** The fields of a clip of half a minute whose file comes to 4 MB. */
function show(rate: Rate, change: Partial<ComponentProps<typeof RateFields>> = {}): jest.Mock {
  const onChange = jest.fn();
  render(
    <RateFields
      rate={rate}
      offered={['worked-out', 'variable', 'constant', 'size']}
      bits={6e6}
      bytes={4e6}
      tried
      minBytes={1.23e6}
      minutes={0.5}
      onChange={onChange}
      {...change}
    />,
  );
  return onChange;
}
const size = (megabytes: number, each: 'file' | 'minute' = 'file'): Rate => ({
  kind: 'size',
  bytes: megabytes * 1e6,
  each,
});

describe('the bit rate of a file', () => {
  it('begins, in each way, from what the file is now', () => {
    const onChange = show({ kind: 'worked-out' });
    fireEvent.press(screen.getByText('A size'));
    expect(onChange).toHaveBeenLastCalledWith(size(4));
    fireEvent.press(screen.getByText('Variable'));
    expect(onChange).toHaveBeenLastCalledWith({ kind: 'variable', bits: 6e6, most: null });
  });

  it('offers what the maker has, and what was chosen before', () => {
    show({ kind: 'quality', quantiser: 22 }, { offered: ['worked-out'] });
    expect(screen.getByText('Constant quality')).toBeTruthy();
    expect(screen.queryByText('A size')).toBeNull();
  });

  it('never lets the most be under the target', () => {
    const onChange = show({ kind: 'variable', bits: 6e6, most: null });
    fireEvent.changeText(screen.getByLabelText('Most'), '3');
    fireEvent(screen.getByLabelText('Most'), 'submitEditing');
    expect(onChange).toHaveBeenLastCalledWith({ kind: 'variable', bits: 6e6, most: 6e6 });
  });
});

describe('a size to land on', () => {
  it('is told beforehand where the clip cannot fill it', () => {
    show(size(20));
    expect(screen.getByText(NO_USE)).toHaveTextContent(/comes to about 4\.0 MB/);
  });

  it('is taken as it is where it can, within what pieces of it are off at most', () => {
    show(size(4.3));
    expect(screen.queryByText(NO_USE)).toBeNull();
  });

  it('is told beforehand where pieces of the clip were far too large', () => {
    show(size(1.9));
    expect(screen.getByText(/Pieces of this clip came to 4\.0 MB/)).toBeTruthy();
    screen.unmount();
    show(size(2.1));
    expect(screen.queryByText(/Pieces of this clip/)).toBeNull();
  });

  it('is not judged before pieces of the clip were encoded', () => {
    show(size(20), { tried: false });
    expect(screen.queryByText(NO_USE)).toBeNull();
  });

  it('may be that of a minute', () => {
    show(size(8, 'minute'));
    expect(screen.queryByText(NO_USE)).toBeNull();
    screen.unmount();
    show(size(20, 'minute'));
    expect(screen.getByText(NO_USE)).toBeTruthy();
  });

  it('cannot be less than sound and container take', () => {
    show(size(1));
    expect(
      screen.getByText('This clip cannot be so small: 1.3 MB is the least. It becomes as small as it can.'),
    ).toBeTruthy();
  });
});
