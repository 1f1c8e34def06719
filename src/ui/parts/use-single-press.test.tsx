import { renderHook } from '@testing-library/react-native';
import { useSinglePress } from './use-single-press';

it('a press counts once where the hand presses twice, and again later', async () => {
  const now = jest.spyOn(performance, 'now').mockReturnValue(1000);
  const act = jest.fn();
  const { result } = await renderHook(useSinglePress);
  result.current(act);
  now.mockReturnValue(1200);
  result.current(act);
  expect(act).toHaveBeenCalledTimes(1);
  now.mockReturnValue(2000);
  result.current(act);
  expect(act).toHaveBeenCalledTimes(2);
});
