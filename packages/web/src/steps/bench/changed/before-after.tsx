import { Announced } from '../../../ui/announced';
import { findFault } from '@velvet-reed/core/sweep';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useEffect, useState } from 'react';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

type Role = 'before' | 'after' | 'none';
const WORDS: Readonly<Record<Role, string>> = { none: 'not compared', before: 'before', after: 'after' };

/** Compares two states of an antenna: which dips moved or went, and what most likely happened. */
export function BeforeAfter({
  loaded,
  antennaName,
  onFault,
}: {
  readonly loaded: readonly LoadedSweep[];
  readonly antennaName: string;
  /** Told when the comparison names something that no trimming cures. */
  readonly onFault: (sentence: string | undefined) => void;
}) {
  const { trySave } = useWrite();
  const [roles, setRoles] = useState<Readonly<Record<number, Role>>>({});
  const of = (role: Role) => loaded.filter(({ header }) => roles[header.id] === role).map(({ sweep }) => sweep);
  const [before, after] = [of('before'), of('after')];
  const raw = loaded.filter(({ header }) => header.correction === 'raw' && (roles[header.id] ?? 'none') !== 'none');
  const found = before.length > 0 && after.length > 0 ? findFault(before, after) : undefined;
  const fault = found && !found.tuningJob ? found.sentence : undefined;
  useEffect(() => onFault(fault), [onFault, fault]);
  if (loaded.length < 2) return null;
  return (
    <Section
      title="Before and after"
      hint="what happened between two measurements; several sweeps of a state may be one a band"
    >
      <ul className="max-w-3xl">
        {loaded.map(({ header }) => (
          <li key={header.id} className="flex flex-wrap items-center gap-x-4">
            <span className="grow">{header.name}</span>
            <label className="text-sm text-dim">
              <span className="sr-only">{header.name} counts as</span>
              <select
                className="text-ink"
                aria-label={`${header.name} counts as`}
                value={roles[header.id] ?? 'none'}
                onChange={(event) => {
                  const { value } = event.target;
                  const role: Role = value === 'before' || value === 'after' ? value : 'none';
                  setRoles({ ...roles, [header.id]: role });
                }}
              >
                {(['none', 'before', 'after'] as const).map((role) => (
                  <option key={role} value={role}>
                    {WORDS[role]}
                  </option>
                ))}
              </select>
            </label>
          </li>
        ))}
      </ul>
      {raw.length > 0 && (
        <p className="mt-2 max-w-prose text-sm text-caution">
          {raw.map(({ header }) => header.name).join(' and ')}: raw readings. The analyser’s own ripples can pass for
          dips; compare calibrated sweeps.
        </p>
      )}
      {found && (
        <Announced className="mt-3 max-w-prose">
          <p className={found.tuningJob ? '' : 'text-caution'}>{found.sentence}</p>
          <ul className="mt-2 list-disc pl-5" aria-label="Dips">
            {found.dips.map(({ before: dip, after: now, shiftHz }) => (
              <li key={dip.freqHz}>
                {frequencyText(dip.freqHz)}:{' '}
                {now && shiftHz !== undefined ? (
                  <Value
                    shown={{ digits: `${shiftHz >= 0 ? '+' : '−'}${fixed(Math.abs(shiftHz) / 1000, 0)}`, unit: 'kHz' }}
                    provenance={{
                      origin: 'measured',
                      formula: 'dip after − dip before',
                      inputs: [
                        ['before', frequencyText(dip.freqHz, 5)],
                        ['after', frequencyText(now.freqHz, 5)],
                      ],
                      source: 'your sweeps',
                    }}
                  />
                ) : (
                  'gone'
                )}
              </li>
            ))}
          </ul>
          <h3 className="mt-2 font-semibold">Likely causes, most likely first</h3>
          <ol className="list-decimal pl-5">
            {found.causes.map((cause) => (
              <li key={cause.name}>
                {cause.name}: {cause.reason}
              </li>
            ))}
          </ol>
          <Button
            className="mt-2"
            onClick={() =>
              void trySave(
                [entry('bench', `${antennaName}, before and after: ${found.sentence}`)],
                'Written into the notebook.',
              )
            }
          >
            Write this into the notebook
          </Button>
        </Announced>
      )}
    </Section>
  );
}
