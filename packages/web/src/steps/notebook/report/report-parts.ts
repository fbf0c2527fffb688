import { writeCsv } from '@velvet-reed/core/formats';
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

const rowsOf = (table: unknown): readonly unknown[][] =>
  typeof table === 'object' && table !== null && 'body' in table && Array.isArray(table.body)
    ? table.body.filter((row): row is unknown[] => Array.isArray(row))
    : [];

/** A number with a unit behind it, as the tables of the report show it. */
const MEASURED = /^([+−-]?\d[\d.]*)\s*(k?Hz|[MG]Hz|[mck]?m|dB(?:m|i|µV\/m)?|[mkM]?W|Ω|°|%|s|min|h|V\/m)$/;

/** Units out of the cells into the heading, where a whole column has one unit; the cells are then plain numbers. */
function plainTable(rows: readonly (readonly string[])[]): readonly (readonly string[])[] {
  const [head = [], ...body] = rows;
  const units = head.map((_, k) => {
    const found = new Set(body.map((row) => MEASURED.exec(row[k] ?? '')?.[2] ?? (row[k] === '' ? '' : undefined)));
    found.delete('');
    const [unit, ...more] = found;
    return unit !== undefined && more.length === 0 ? unit : undefined;
  });
  return [
    head.map((name, k) => (units[k] === undefined ? name : `${name} (${units[k]})`)),
    ...body.map((row) => row.map((text, k) => (units[k] === undefined ? text : (MEASURED.exec(text)?.[1] ?? text)))),
  ];
}

/** The report's headings, sentences and tables as one CSV (RFC 4180), in its order; plain numbers, units in the headings. */
export function reportCsv(report: TDocumentDefinitions): string {
  return partsOf(report)
    .map((part): string => {
      if (part.has('table')) {
        const [head = [], ...body] = plainTable(rowsOf(part.get('table')).map((row) => row.map(textOf)));
        return `${writeCsv(head, body)}\r\n`;
      }
      return part.has('text') ? writeCsv([textOf(part.get('text')).replaceAll('\n', '; ')], []) : '';
    })
    .join('');
}

/** The report's charts as SVG texts. */
export const reportCharts = (report: TDocumentDefinitions): readonly string[] =>
  partsOf(report).flatMap((part) => {
    const svg = part.get('svg');
    return typeof svg === 'string' ? [svg] : [];
  });
