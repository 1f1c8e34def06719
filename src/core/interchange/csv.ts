import Papa from 'papaparse';

/**
 * Beginnings that a spreadsheet would take for a formula, also behind spaces, in full-width signs, or before
 * a line break (after OWASP, "CSV Injection").
 */
const FORMULA = /^\s*[=+\-@＝＋－＠]|^[\t\r\n]/;

/** Writes rows as CSV (RFC 4180), with a line of column names. Cells that look like formulas get a quote before them. */
export const toCsv = <Row extends object>(
  rows: readonly Row[],
  columns: readonly (keyof Row & string)[],
): string => `${Papa.unparse([...rows], { columns: [...columns], escapeFormulae: FORMULA })}\r\n`;
