import { type TableAnswer, type TableQuestion, TableQuestionError } from '@velvet-reed/core/formats';
import { RefusedError } from './api';
import { localStore } from './browser-store';

/** A point of the curve that an answer would give. */
export interface PreviewPoint {
  readonly x: number;
  readonly y: number;
}
/** The curve that an answer gives, or why it gives none. */
export type Preview = { readonly label: string; readonly points: readonly PreviewPoint[] } | { readonly fault: string };

/** A question that waits for the person. */
export interface OpenQuestion {
  readonly fileName: string;
  readonly question: TableQuestion;
  readonly preview: (answer: TableAnswer) => Preview;
  readonly done: (answer: TableAnswer | undefined) => void;
}

/** A file that was read as an earlier answer for its heading says. */
export interface Recalled {
  readonly fileName: string;
  readonly key: string;
}

const CHANGED = 'velvet-reed-table-question';
const STORE = 'velvet-reed-columns';
let open: OpenQuestion | undefined;
let recalled: Recalled | undefined;
const listeners = new Set<() => void>();

export const openQuestion = (): OpenQuestion | undefined => open;
export const recalledTable = (): Recalled | undefined => recalled;
function tellRecalled(one: Recalled | undefined): void {
  recalled = one;
  listeners.forEach((listener) => listener());
}
/** The person has seen which answer was used again, and keeps it. */
export const dismissRecalled = (): void => tellRecalled(undefined);
export function onQuestion(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
function show(question: OpenQuestion | undefined): void {
  open = question;
  listeners.forEach((listener) => listener());
  window.dispatchEvent(new Event(CHANGED));
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

function remembered(): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(localStore.getItem(STORE) ?? '{}');
    return isRecord(value) ? value : {};
  } catch {
    return {};
  }
}

/** What was answered for tables with this heading before, if its shape still fits. */
function recall({ key, columns }: TableQuestion): TableAnswer | undefined {
  const value = remembered()[key];
  return isRecord(value) && Array.isArray(value.columns) && value.columns.length === columns.length ? value : undefined;
}

/** Asks again for tables with this heading. */
export function forgetTable(key: string): void {
  const { [key]: _gone, ...rest } = remembered();
  keep(rest);
  dismissRecalled();
}
function keep(answers: Record<string, unknown>): void {
  localStore.setItem(STORE, JSON.stringify(answers));
}

const questionOf = (error: unknown): TableQuestion | undefined =>
  error instanceof TableQuestionError
    ? error.question
    : error instanceof RefusedError
      ? error.refusal.question
      : undefined;

/** The person gave up answering: nothing was read. */
export class NotAnswered extends Error {
  constructor() {
    super('The question was not answered. Nothing was stored.');
  }
}

/**
 * Reads a file as often as it takes: what it does not say for certain is asked of the person once, and remembered for its heading.
 * @param attempt throws a question or succeeds. @throws NotAnswered, or what the attempt throws.
 */
export async function withAnswers<T>(
  fileName: string,
  attempt: (answer?: TableAnswer) => Promise<T>,
  preview: (answer: TableAnswer) => Preview,
): Promise<T> {
  let question: TableQuestion | undefined;
  try {
    return await attempt();
  } catch (error) {
    question = questionOf(error);
    if (!question) throw error;
  }
  const before = recall(question);
  if (before)
    try {
      const result = await attempt(before);
      tellRecalled({ fileName, key: question.key });
      return result;
    } catch (error) {
      question = questionOf(error) ?? question; // what was remembered does not fit this file: ask anew
    }
  const asked = question;
  const answer = await new Promise<TableAnswer | undefined>((done) =>
    show({
      fileName,
      question: asked,
      preview,
      done: (given) => {
        show(undefined);
        done(given);
      },
    }),
  );
  if (!answer) throw new NotAnswered();
  const result = await attempt(answer);
  // whether a clock was set back holds for this file alone
  const { clock: _clock, ...lasting } = answer;
  keep({ ...remembered(), [asked.key]: lasting });
  return result;
}
