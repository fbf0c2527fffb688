import type { Saved } from '@velvet-reed/contract';
import { measuredGate } from '@velvet-reed/core/antenna';
import { sealingVerdict } from '@velvet-reed/core/sweep';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers, type KeptTexts } from '../../../ui/use-typed-numbers';

const POSITIONS = ['first position', 'second position', 'third position'];

export function Positions({
  data,
  antenna,
  targetHz,
  kept,
}: {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'> | undefined;
  readonly targetHz: number | undefined;
  readonly kept: KeptTexts | undefined;
}) {
  const { trySave } = useWrite();
  const [insideTube, setInsideTube] = useState(false);
  const revision = antenna && latestRevision(data, antenna.id);
  const gate = revision && measuredGate(designOf(data, revision));
  const typed = useTypedNumbers(
    POSITIONS.map((label) => ({
      name: label,
      label: `Peak, ${label}`,
      dimension: 'frequency',
      bareUnit: 'kHz',
      start: '',
      near: [targetHz ?? 0],
    })),
    kept,
  );
  const readings = POSITIONS.flatMap((name) => typed.value(name) ?? []);
  const verdict = targetHz === undefined ? undefined : sealingVerdict(readings, targetHz, { insideTube });
  const passes = verdict?.mayBeSealed === true;
  return (
    <div className="mt-4">
      <h3 className="font-semibold">Before sealing: three positions</h3>
      <TypedFields of={typed} />
      <label className="mt-1 flex items-center gap-2">
        <input type="checkbox" checked={insideTube} onChange={(event) => setInsideTube(event.target.checked)} />
        Measured inside the tube or box that it will be sealed in
      </label>
      {verdict && readings.length > 0 && (
        <p role="status" className={`mt-1 ${passes ? '' : 'text-danger'}`}>
          {verdict.sentence}
        </p>
      )}
      {verdict && readings.length === POSITIONS.length && revision && gate && (
        <Button
          className="mt-1"
          onClick={() => {
            const rest = revision.gates.filter((one) => one !== undefined && one !== gate.id);
            const gates = passes ? [...rest, gate.id] : rest;
            const { id, version } = revision;
            void trySave(
              [
                { op: 'update', resource: 'revisions', id, version, values: { gates } },
                entry(
                  'bench',
                  `${antenna.name}: three positions ${readings.map((one) => `${fixed(one / 1000, 2)} kHz`).join(', ')}: test ${passes ? 'passed' : 'not passed'}. ${verdict.sentence}`,
                ),
              ],
              passes ? 'The test is passed in the build plan.' : 'The test stands as not passed: sealing stays locked.',
            );
          }}
        >
          {passes ? 'Pass this test in the build plan' : 'Record it: not passed, sealing stays locked'}
        </Button>
      )}
    </div>
  );
}
