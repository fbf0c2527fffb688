import { CoreError } from '@velvet-reed/core/errors';

/** A case's input is missing or of the wrong kind. */
export class CaseInputError extends CoreError {
  readonly code = 'CASE_INPUT';
}

/** What a template gives back, under the names of the check file. */
type Answer = Readonly<Record<string, unknown>>;
/** Names in, names out; the core computes. */
export type Adapter = (inputs: Inputs) => Answer;

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Reads the inputs of one case with a clear refusal for what is missing. */
export class Inputs {
  constructor(private readonly values: Readonly<Record<string, unknown>>) {}

  has(name: string): boolean {
    return this.values[name] !== undefined && this.values[name] !== null;
  }

  /** A value as it stands in the file. */
  raw(name: string): unknown {
    return this.values[name];
  }

  number(name: string, fallback?: number): number {
    const value = this.values[name];
    if (typeof value === 'number') return value;
    if (fallback !== undefined && (value === undefined || value === null)) return fallback;
    throw new CaseInputError(`The input "${name}" must be a number. Correct the case.`);
  }

  text(name: string, fallback?: string): string {
    const value = this.values[name];
    if (typeof value === 'string') return value;
    if (fallback !== undefined && value === undefined) return fallback;
    throw new CaseInputError(`The input "${name}" must be a text. Correct the case.`);
  }

  flag(name: string): boolean {
    return this.values[name] === true;
  }

  numbers(name: string): number[] {
    return this.list(name).map((value) => {
      if (typeof value === 'number') return value;
      throw new CaseInputError(`Every entry of "${name}" must be a number. Correct the case.`);
    });
  }

  /** Numbers in which null stands for "no reading". */
  readings(name: string): (number | null)[] {
    return this.list(name).map((value) => (typeof value === 'number' ? value : null));
  }

  pair(name: string): { re: number; im: number } {
    const [re, im] = this.numbers(name);
    return { re, im };
  }

  group(name: string): Inputs {
    const value = this.values[name];
    if (isRecord(value)) return new Inputs(value);
    throw new CaseInputError(`The input "${name}" must be a group of named values. Correct the case.`);
  }

  groups(name: string): Inputs[] {
    return this.list(name).map((value) => {
      if (isRecord(value)) return new Inputs(value);
      throw new CaseInputError(`Every entry of "${name}" must be a group of named values. Correct the case.`);
    });
  }

  private list(name: string): unknown[] {
    const value = this.values[name];
    if (Array.isArray(value)) return value;
    throw new CaseInputError(`The input "${name}" must be a list. Correct the case.`);
  }
}

export { isRecord };
