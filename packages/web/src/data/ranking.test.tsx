import { expect, jest, test } from '@jest/globals';
import {
  type Hearing,
  hearingKey,
  type HearingQuestion,
  kindCandidates,
  solveHearing,
  type Unheard,
} from '@velvet-reed/core/choose';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { targetChoices } from '@velvet-reed/station/derive';
import { HearingsContext, type Hearings } from './hearings';
import { useHeard } from './ranking';
import { spotsOf } from '@velvet-reed/station/spots';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';

const TARGETS = targetChoices(TEST_STATION, Date.UTC(2026, 2, 10));
const SPECS = kindCandidates(TARGETS, spotsOf(TEST_STATION), ['half-wave-dipole', 'ground-loop']);
const NO_EMITTERS: readonly number[] = [];

/** Answers one question each time `step` is called, as a slow worker would. */
function slowHearings() {
  const known = new Map<string, Hearing | Unheard>();
  let waiting: (() => void)[] = [];
  const asked = jest.fn();
  const hearings: Hearings = {
    known,
    async ask(questions: readonly HearingQuestion[], onProgress, signal) {
      asked();
      for (const question of questions) {
        if (known.has(hearingKey(question))) continue;
        await new Promise<void>((resolve) => {
          waiting.push(resolve);
          signal.addEventListener('abort', () => resolve(), { once: true });
        });
        if (signal.aborted) return;
        known.set(hearingKey(question), solveHearing(question));
        onProgress(known.size);
      }
    },
  };
  const step = async (): Promise<void> => {
    const [first, ...rest] = waiting;
    waiting = rest;
    await act(async () => {
      first?.();
      await Promise.resolve();
    });
  };
  return { hearings, step, asked };
}
const render = (hearings: Hearings) =>
  renderHook(() => useHeard(SPECS, TARGETS, NO_EMITTERS, 'average'), {
    wrapper: ({ children }: { readonly children: ReactNode }) => (
      <HearingsContext value={hearings}>{children}</HearingsContext>
    ),
  });

test('answers come one by one; a candidate is ready when all of its own are there', async () => {
  const { hearings, step } = slowHearings();
  const { result } = render(hearings);
  await waitFor(() => expect(result.current.asked).toBe(2));
  expect(result.current.complete).toBe(false);
  expect(result.current.ready.map((one) => one.complete)).toEqual([false, false]);
  await step();
  await step();
  await waitFor(() => expect(result.current.complete).toBe(true));
  expect(result.current.ready.every((one) => one.complete)).toBe(true);
  expect(result.current.ms).toBeGreaterThanOrEqual(0);
  expect(result.current.ready[0].toward(TARGETS[0]).validity).toBe('holds');
});

test('stop takes effect at once and says so; going on asks only for what is missing', async () => {
  const { hearings, step, asked } = slowHearings();
  const { result } = render(hearings);
  await step();
  act(() => result.current.stop());
  await waitFor(() => expect(result.current.stopped).toBe(true));
  expect(result.current.complete).toBe(false);
  act(() => result.current.resume());
  await waitFor(() => expect(asked).toHaveBeenCalledTimes(2));
  await step();
  await step();
  await waitFor(() => expect(result.current.complete).toBe(true));
});

test('with every answer known nothing is waited for', async () => {
  const { hearings, step } = slowHearings();
  const first = render(hearings);
  await step();
  await step();
  await waitFor(() => expect(first.result.current.complete).toBe(true));
  const second = render(hearings);
  expect(second.result.current.complete).toBe(true);
});
