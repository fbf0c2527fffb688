import { boolean, mixed, number, string } from 'yup';

/** A number in the unit that the label names. Emptied or non-numeric input is told apart from a value out of range. */
export const quantity = (label: string, min: number, max: number) =>
  number()
    .typeError(`${label}: enter a number.`)
    .required(`${label} is missing. Enter it.`)
    .test('finite', `${label}: enter a finite number.`, (value) => value === undefined || Number.isFinite(value))
    .min(min, `${label} must be at least ${min}. Enter a larger value.`)
    .max(max, `${label} must be at most ${max}. Enter a smaller value.`);

/** The same, where "not read" or "not set" is a valid answer. */
export const optionalQuantity = (label: string, min: number, max: number) =>
  number()
    .typeError(`${label}: enter a number or leave it empty.`)
    .nullable()
    .defined(`${label} is missing. Send null if it was not read.`)
    .test(
      'finite',
      `${label}: enter a finite number.`,
      (value) => value === null || value === undefined || Number.isFinite(value),
    )
    .min(min, `${label} must be at least ${min}. Enter a larger value.`)
    .max(max, `${label} must be at most ${max}. Enter a smaller value.`);

export const wholeNumber = (label: string, min: number, max: number) =>
  quantity(label, min, max).integer(`${label} must be a whole number.`);

export const line = (label: string, longest = 80) =>
  string()
    .typeError(`${label}: enter a text.`)
    .defined(`${label} is missing. Enter it.`)
    .test('filled', `${label} is empty. Give it a name that you will recognise.`, (value) => value.trim().length > 0)
    .max(longest, `${label} is longer than ${longest} characters. Shorten it.`);

/** A text that may be empty. */
export const shortText = (label: string, longest: number) =>
  string()
    .typeError(`${label}: enter a text.`)
    .defined(`${label} is missing. Send an empty text if there is none.`)
    .max(longest, `${label} is longer than ${longest} characters. Shorten it.`);

export const choice = <T extends string>(label: string, options: readonly T[]) =>
  mixed<T>()
    .oneOf([...options], `${label} must be one of: ${options.join(', ')}.`)
    .required(`${label} is missing. Choose one.`);

export const flag = (label: string) =>
  boolean().typeError(`${label}: answer yes or no.`).required(`${label} is missing. Answer yes or no.`);

export const recordId = (label: string) => wholeNumber(label, 1, Number.MAX_SAFE_INTEGER);
export const optionalRecordId = (label: string) =>
  number()
    .typeError(`${label}: choose one or none.`)
    .integer(`${label}: choose one or none.`)
    .min(1)
    .nullable()
    .defined(`${label} is missing. Send null for none.`);

const isWord = (value: unknown): value is string => typeof value === 'string' && value.length > 0 && value.length <= 60;

export const wordList = (label: string) => listOf<string>(label, isWord, 0, 200);

const fewNumbers = (entries: ReadonlyMap<string, unknown>): boolean =>
  entries.size <= 60 &&
  [...entries].every(([name, value]) => name.length <= 40 && typeof value === 'number' && Number.isFinite(value));

/** Named numbers, such as the dimensions of an antenna. */
export const namedNumbers = (label: string) =>
  mixed<Record<string, number>>(
    (value: unknown): value is Record<string, number> =>
      typeof value === 'object' &&
      value !== null &&
      !Array.isArray(value) &&
      fewNumbers(new Map<string, unknown>(Object.entries(value))),
  )
    .typeError(`${label} must be a group of named numbers. Correct them.`)
    .required(`${label} are missing. Send an empty group if there are none.`);

/** Named short texts, such as what stands in the fields of a tool. */
export const namedTexts = (label: string) =>
  mixed<Record<string, string>>(
    (value: unknown): value is Record<string, string> =>
      typeof value === 'object' &&
      value !== null &&
      !Array.isArray(value) &&
      Object.keys(value).length <= 60 &&
      Object.entries(value).every(
        ([name, text]: [string, unknown]) => name.length <= 40 && typeof text === 'string' && text.length <= 60,
      ),
  )
    .typeError(`${label} must be a group of named texts. Correct them.`)
    .required(`${label} are missing. Send an empty group if there are none.`);

/** A list of things that a guard knows, such as points of a plan. */
export const listOf = <T>(label: string, isItem: (value: unknown) => value is T, least: number, most: number) =>
  mixed<readonly T[]>(
    (value: unknown): value is readonly T[] =>
      Array.isArray(value) && value.length >= least && value.length <= most && value.every(isItem),
  )
    .typeError(`${label} must be a list of ${least} to ${most} valid entries. Correct them.`)
    .required(`${label} are missing. Send a list.`);

/** What a record was taken on. */
export const scopeValue = <T extends object>(label: string, isScope: (value: unknown) => value is T) =>
  mixed<T>(isScope)
    .typeError(
      `${label}: frequencies, powers, antennas, parts, receiver, directions, bandwidth and times only. Correct it.`,
    )
    .required(`${label} is missing. Send an empty group if nobody wrote it down.`);
