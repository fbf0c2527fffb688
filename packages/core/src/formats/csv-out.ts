/** What a spreadsheet would take for a formula when a cell begins with it. */
const FORMULA = /^[=+\-@\t\r]/;
const isNumber = (text: string): boolean => /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text);

/**
 * One cell of a CSV file: plain numbers as they are, texts quoted where they must be; a text that a spreadsheet would compute gets an apostrophe ahead
 * of it, which spreadsheets take as "this is text" and do not show.
 */
function cellText(value: string | number | null | undefined): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'number') return Number.isFinite(value) ? String(value) : '';
  const plain = value.replaceAll('−', '-');
  if (isNumber(plain)) return plain;
  const safe = FORMULA.test(value) ? `'${value}` : value;
  return /[",;\r\n]/.test(safe) || safe !== safe.trim() ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** A table as CSV (RFC 4180): units belong into the heading, plain numbers into the cells. Missing and unbounded values are empty cells. */
export const writeCsv = (
  head: readonly string[],
  rows: readonly (readonly (string | number | null | undefined)[])[],
): string => [head, ...rows].map((row) => `${row.map(cellText).join(',')}\r\n`).join('');
