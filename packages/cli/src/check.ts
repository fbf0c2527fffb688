import { CoreError } from '@velvet-reed/core/errors';
import { Inputs, isRecord, type Adapter } from './inputs';
import { chainTemplates } from './templates/chain';
import { coilTemplates } from './templates/coils';
import { lineTemplates } from './templates/line';
import { receiveTemplates } from './templates/receive';
import { secondTemplates } from './templates/second';
import { spaceTemplates } from './templates/space';
import { workTemplates } from './templates/work';
import { wireFault } from './wire-cases';

const TEMPLATES: Readonly<Record<string, Adapter>> = {
  ...chainTemplates,
  ...coilTemplates,
  ...lineTemplates,
  ...receiveTemplates,
  ...secondTemplates,
  ...spaceTemplates,
  ...workTemplates,
};

/** What one run of a check file printed, and its count. */
export interface CheckReport {
  readonly lines: readonly string[];
  readonly passed: number;
  readonly failed: number;
}

/** The file is no check file. */
class CheckFileError extends CoreError {
  readonly code = 'CHECK_FILE';
}

interface Tolerance {
  readonly exact?: boolean;
  readonly abs?: number;
  readonly rel?: number;
}

/** |x − expected| ≤ max(abs, rel·|expected|), element by element in lists; null expects null; equality where exact. */
function agrees(got: unknown, expected: unknown, tolerance: Tolerance): boolean {
  if (Array.isArray(expected))
    return (
      Array.isArray(got) &&
      got.length === expected.length &&
      expected.every((value, i) => agrees(got[i], value, tolerance))
    );
  if (expected === null) return got === null;
  if (tolerance.exact === true || typeof expected !== 'number') return got === expected;
  if (typeof got !== 'number' || !Number.isFinite(got)) return false;
  const allowed = Math.max(tolerance.abs ?? 0, (tolerance.rel ?? 0) * Math.abs(expected));
  return Math.abs(got - expected) <= allowed + 1e-12 * Math.abs(expected);
}

const show = (value: unknown): string => JSON.stringify(value) ?? 'nothing';

function toleranceOf(value: unknown): Tolerance {
  if (!isRecord(value)) return {};
  return {
    exact: value.exact === true,
    ...(typeof value.abs === 'number' ? { abs: value.abs } : {}),
    ...(typeof value.rel === 'number' ? { rel: value.rel } : {}),
  };
}

/** One case: the first key that disagrees, or undefined if all agree. */
function chainFault(entry: Record<string, unknown>): string | undefined {
  const template = String(entry.template);
  if (!Object.hasOwn(TEMPLATES, template)) return `template ${template} is not known here`;
  const adapter = TEMPLATES[template];
  const expected = isRecord(entry.expected) ? entry.expected : {};
  const tolerances = isRecord(entry.tolerance) ? entry.tolerance : {};
  if (Object.keys(expected).length === 0) return 'the case expects nothing';
  try {
    const answer = adapter(new Inputs(isRecord(entry.inputs) ? entry.inputs : {}));
    for (const [key, value] of Object.entries(expected)) {
      if (!agrees(answer[key], value, toleranceOf(tolerances[key])))
        return `${key} got ${show(answer[key])} expected ${show(value)} tolerance ${show(tolerances[key])}`;
    }
    return undefined;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/**
 * Runs every case of a check file through the core.
 * @param areas two-digit areas to keep ("01"); empty keeps all.
 * @throws CheckFileError if the JSON is not of either known shape.
 */
export function runChecks(file: unknown, areas: readonly string[]): CheckReport {
  if (isRecord(file) && Array.isArray(file.cases)) return summary(file.cases, wireFault);
  if (!Array.isArray(file))
    throw new CheckFileError(
      'A check file is a list of cases, or a group with "meta" and "cases". This file is neither.',
    );
  const cases = file
    .filter(isRecord)
    .filter((entry) => areas.length === 0 || areas.includes(String(entry.area).slice(0, 2)));
  const report = summary(cases, chainFault);
  // entries that are no group at all count as failures, whatever area is asked for
  return { ...report, failed: report.failed + file.length - file.filter(isRecord).length };
}

/** One line per case, and the count. */
function summary(
  cases: readonly unknown[],
  faultOf: (entry: Record<string, unknown>) => string | undefined,
): CheckReport {
  const lines = cases.map((entry) => {
    if (!isRecord(entry)) return 'FAIL ? is not a group of named values';
    const fault = faultOf(entry);
    return fault === undefined ? `ok ${String(entry.id)}` : `FAIL ${String(entry.id)} ${fault}`;
  });
  const passed = lines.filter((line) => line.startsWith('ok ')).length;
  return { lines, passed, failed: lines.length - passed };
}
