/** Of all of them; 0 where there are none. */
export const sum = (numbers: readonly number[]): number => numbers.reduce((total, one) => total + one, 0);
