/** Every refusal of the core: a stable code and a sentence that says what, where and how to mend it. */
export abstract class CoreError extends Error {
  abstract readonly code: string;
  /** The input the sentence is about, when there is one: a form puts the sentence beside that field. */
  readonly field?: string;
  constructor(message: string, field?: string) {
    super(message);
    this.name = new.target.name;
    this.field = field;
  }
}

/** A number lies outside the range in which the formula means anything. */
export class OutOfRangeError extends CoreError {
  readonly code = 'OUT_OF_RANGE';
}

/** Text that should be a quantity ("7.1 MHz", "6 ft 3 in") is not one. */
export class QuantityTextError extends CoreError {
  readonly code = 'QUANTITY_TEXT';
}

/** An iteration ran out before it met its tolerance. */
export class NotConvergedError extends CoreError {
  readonly code = 'NOT_CONVERGED';
  constructor(
    what: string,
    readonly residual: number,
  ) {
    super(
      `${what} did not settle (remaining error ${residual.toExponential(1)}): these inputs leave no single answer. Change one of them and try again.`,
    );
  }
}

/** Lists that belong together have different lengths, or too few entries. */
export class ShapeError extends CoreError {
  readonly code = 'SHAPE';
}

/**
 * Refuses a value that is not finite or lies outside [min, max].
 * @param what names the input as the user knows it, with its unit.
 */
export function requireRange(value: number, what: string, min = -Infinity, max = Infinity): void {
  if (Number.isFinite(value) && value >= min && value <= max) return;
  const range =
    max === Infinity ? `at least ${min}` : min === -Infinity ? `at most ${max}` : `between ${min} and ${max}`;
  throw new OutOfRangeError(
    `${what} is ${Number.isFinite(value) ? value : 'not a number'}; it must be ${min === -Infinity && max === Infinity ? 'a finite number' : range}. Correct that value.`,
    what,
  );
}

/** Refuses zero, negative and non-finite values. */
export function requirePositive(value: number, what: string): void {
  if (Number.isFinite(value) && value > 0) return;
  throw new OutOfRangeError(
    `${what} is ${Number.isFinite(value) ? value : 'not a number'}; it must be above zero. Correct that value.`,
    what,
  );
}
