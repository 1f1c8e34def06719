import { fireEvent, render, screen } from '@testing-library/react-native';
import { NumberField } from './number-field';

const LEAVE = { nativeEvent: {}, target: { value: '' } };
const draw = (value: string, onTake = jest.fn()) => {
  const field = <NumberField label="Zoom" unit="1 to 8" least={1} most={8} value={value} onTake={onTake} />;
  return { onTake, ...render(field) };
};
const input = () => screen.getByLabelText('Zoom');

describe('a number field', () => {
  it('hands over what was typed, once, and goes back to the value it is given', () => {
    const { onTake } = draw('1.00');
    fireEvent.changeText(input(), ' 2,5 ');
    expect(onTake).not.toHaveBeenCalled();
    fireEvent(input(), 'submitEditing');
    expect(onTake).toHaveBeenCalledWith(2.5);
    fireEvent(input(), 'blur', LEAVE);
    expect(onTake).toHaveBeenCalledTimes(1);
    expect(input().props.value).toBe('1.00');
  });

  it('says nothing when the figure stays the same', () => {
    const { onTake } = draw('1.00');
    fireEvent.changeText(input(), '1.00');
    fireEvent(input(), 'blur', LEAVE);
    expect(onTake).not.toHaveBeenCalled();
  });

  it('keeps what it refuses, with the reason, until it is mended or the value changes', () => {
    const { onTake, rerender } = draw('1.00');
    fireEvent.changeText(input(), '12');
    fireEvent(input(), 'blur', LEAVE);
    expect(onTake).not.toHaveBeenCalled();
    expect(input().props.value).toBe('12');
    expect(screen.getByRole('alert')).toHaveTextContent('12 is more than 8. Type a number from 1 to 8.');
    fireEvent.changeText(input(), '3');
    expect(screen.queryByRole('alert')).toBeNull();
    fireEvent.changeText(input(), 'wide');
    fireEvent(input(), 'submitEditing');
    expect(screen.getByRole('alert')).toBeTruthy();
    rerender(<NumberField label="Zoom" value="1.50" onTake={onTake} />);
    expect(screen.queryByRole('alert')).toBeNull();
    expect(input().props.value).toBe('1.50');
  });
});
