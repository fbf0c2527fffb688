import type { TDocumentDefinitions } from 'pdfmake/interfaces';

type Entries = ReadonlyMap<string, unknown>;

/** The parts of a report's body, as named values; sentences stand under "text". */
const partsOf = (report: TDocumentDefinitions): readonly Entries[] =>
  (Array.isArray(report.content) ? report.content : []).map((part: unknown): Entries =>
    typeof part === 'object' && part !== null ? new Map(Object.entries(part)) : new Map([['text', part]]),
  );

const textOf = (value: unknown): string => {
  if (Array.isArray(value)) return value.map(textOf).join(' ');
  if (typeof value === 'object' && value !== null && 'text' in value) return textOf(value.text);
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
};

const cell = (value: unknown): string => {
  const text = textOf(value);
  return /[",\n]/.test(text) ? `"${text.replaceAll('"', '""').replaceAll('\n', '; ')}"` : text;
};

const rowsOf = (table: unknown): readonly unknown[][] =>
  typeof table === 'object' && table !== null && 'body' in table && Array.isArray(table.body)
    ? table.body.filter((row): row is unknown[] => Array.isArray(row))
    : [];

/** The report's headings, sentences and tables as one CSV (RFC 4180), in its order. */
export function reportCsv(report: TDocumentDefinitions): string {
  const lines = partsOf(report).flatMap((part): string[] => {
    if (part.has('table')) return [...rowsOf(part.get('table')).map((row) => row.map(cell).join(',')), ''];
    return part.has('text') ? [cell(part.get('text'))] : [];
  });
  return `${lines.join('\r\n')}\r\n`;
}

/** The report's charts as SVG texts. */
export const reportCharts = (report: TDocumentDefinitions): readonly string[] =>
  partsOf(report).flatMap((part) => {
    const svg = part.get('svg');
    return typeof svg === 'string' ? [svg] : [];
  });
