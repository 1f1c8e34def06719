import { fireEvent, render, screen } from '@testing-library/react-native';
import { NumberField } from './number-field';

describe('a number field', () => {
  it('hands over what was typed, once, and goes back to the value it is given', () => {
    const submit = jest.fn(() => true);
    render(<NumberField label="Zoom" unit="1 to 8" value="1.00" onSubmit={submit} />);
    const field = screen.getByLabelText('Zoom');
    fireEvent.changeText(field, ' 2.5 ');
    expect(submit).not.toHaveBeenCalled();
    fireEvent(field, 'submitEditing');
    expect(submit).toHaveBeenCalledWith('2.5');
    fireEvent(field, 'blur', { nativeEvent: {}, target: { value: '' } });
    expect(submit).toHaveBeenCalledTimes(1);
    expect(field.props.value).toBe('1.00');
  });

  it('says nothing when the figure stays the same', () => {
    const submit = jest.fn(() => true);
    render(<NumberField label="Zoom" value="1.00" onSubmit={submit} />);
    fireEvent.changeText(screen.getByLabelText('Zoom'), '1.00');
    fireEvent(screen.getByLabelText('Zoom'), 'blur', { nativeEvent: {}, target: { value: '' } });
    expect(submit).not.toHaveBeenCalled();
  });
});
