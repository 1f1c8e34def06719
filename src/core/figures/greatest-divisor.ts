/** The greatest common divisor of two whole numbers (Euclid, Elements VII.2). @param a over 0. @param b 0 or more. */
export const greatestDivisor = (a: number, b: number): number => (b === 0 ? a : greatestDivisor(b, a % b));
