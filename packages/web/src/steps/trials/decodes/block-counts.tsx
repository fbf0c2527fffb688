import { CoreError } from '@velvet-reed/core/errors';
import { blockRatio } from '@velvet-reed/core/trial';
import { useState } from 'react';
import { entry, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';

const numbers = (text: string): number[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);

/** Aircraft (or other messages) counted in blocks that alternate between two set-ups: how many times more, and how surely. */
export function BlockCounts() {
  const { save } = useWrite();
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  let found: ReturnType<typeof blockRatio> | undefined;
  let fault = '';
  if (first.trim() && second.trim())
    try {
      found = blockRatio(numbers(first), numbers(second));
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      fault = error.message;
    }
  const within = found?.low == null || found.high == null ? '' : `${found.low.toFixed(2)} to ${found.high.toFixed(2)}`;
  const verdict = !within
    ? 'One pair of blocks says nothing of scatter: count more.'
    : (found?.low ?? 0) > 1 || (found?.high ?? 2) < 1
      ? `within ${within} (95 %).`
      : `within ${within} (95 %): not proven.`;
  return (
    <Section title="Aircraft counts" hint="blocks of equal length, alternating between the two set-ups">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="block text-sm text-dim">
          Counts with the first
          <input
            className="mt-1 block w-full max-w-80 font-mono text-ink"
            placeholder="810, 790, 845"
            value={first}
            onChange={(event) => setFirst(event.target.value)}
            aria-invalid={fault ? true : undefined}
            aria-describedby="counts-answer"
          />
        </label>
        <label className="block text-sm text-dim">
          Counts with the second
          <input
            className="mt-1 block w-full max-w-80 font-mono text-ink"
            placeholder="1510, 1440, 1600"
            value={second}
            onChange={(event) => setSecond(event.target.value)}
            aria-invalid={fault ? true : undefined}
            aria-describedby="counts-answer"
          />
        </label>
        {found && (
          <Button
            look="plain"
            onClick={() =>
              void save(
                [
                  entry(
                    'listen',
                    `Counts by blocks: ${first.trim()} against ${second.trim()}; second over first ${found.ratio.toFixed(2)} times, ${verdict}`,
                  ),
                ],
                'Kept in the Notebook.',
              )
            }
          >
            Keep it in the Notebook
          </Button>
        )}
      </div>
      <output id="counts-answer" className={`mt-2 block ${fault ? 'text-danger' : ''}`}>
        {fault}
        {found && (
          <>
            The second counts{' '}
            <Value
              strong
              shown={{ digits: found.ratio.toFixed(2), unit: 'times' }}
              provenance={{
                origin: 'measured',
                formula: 'geometric mean of second over first, neighbouring blocks as pairs',
                inputs: [['pairs of blocks', String(found.blocks)]],
                source: 'your counts; Student 1908 on the logarithms',
              }}
            />{' '}
            as many, {verdict}
          </>
        )}
      </output>
    </Section>
  );
}
