import type { Saved } from '@velvet-reed/contract';
import { trialVerdict } from '@velvet-reed/core/trial';
import { useState } from 'react';
import { Link } from 'react-router';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import type { RecordedPair } from './pairs-of';

/** Puts the pairs where pairs are judged, with their times, bandwidth and receiver. */
export function IntoTrial({
  data,
  pairs,
  names,
  record,
  startMs,
  fullScaleDbm,
}: {
  readonly data: StationData;
  readonly pairs: readonly RecordedPair[];
  readonly names: { readonly a: string; readonly b: string };
  readonly record: Saved<'recordings'> | undefined;
  readonly startMs: number | null;
  readonly fullScaleDbm: number | undefined;
}) {
  const { trySave } = useWrite();
  const stationId = useStationId();
  const fitting = data.trials.filter(
    ({ antennaAId, antennaBId }) => antennaAId === record?.antennaAId && antennaBId === record?.antennaBId,
  );
  const [trialId, setTrialId] = useState<number>();
  const trial = fitting.find(({ id }) => id === trialId) ?? fitting.at(-1);
  // a recording fixes its number of pairs before anybody looks
  const verdict = trialVerdict(pairs, names, { worthDb: trial?.worthDb, plannedPairs: pairs.length });
  const scale = fullScaleDbm === undefined ? ('dBFS' as const) : ('dBm' as const);
  const shifted = (db: number | null): number | null => (db === null ? null : db + (fullScaleDbm ?? 0));
  const add = async (): Promise<void> => {
    if (!trial || !record) return;
    const logged = data.readings.filter((reading) => reading.trialId === trial.id).length;
    await trySave(
      [
        ...pairs.map((pair, i) => ({
          op: 'create' as const,
          resource: 'readings' as const,
          values: {
            ...{ trialId: trial.id, round: logged + i, scale },
            ...{ levelADbm: shifted(pair.levelADbm), noiseADbm: shifted(pair.noiseADbm) },
            ...{ levelBDbm: shifted(pair.levelBDbm), noiseBDbm: shifted(pair.noiseBDbm) },
            atMs: Math.round((startMs ?? Date.parse(record.createdAt)) + 1000 * pair.atS),
            ...{ receiverId: record.receiverId, bandwidthHz: record.bandwidthHz },
            conditions: `from the recording ${record.name}`.slice(0, 400),
          },
        })),
        entry('trials', `${pairs.length} pairs from the recording ${record.name} put into ${trial.name}.`),
      ],
      `${pairs.length} pairs put into ${trial.name}.`,
    );
  };
  return (
    <div className="mt-3">
      <p className="max-w-prose">{verdict.sentence}</p>
      {!record && <p className="text-sm text-dim">Keep the settings first: then these pairs can go into a trial.</p>}
      {record && fitting.length === 0 && (
        <p className="text-sm text-dim">
          No trial compares these two antennas yet: <Link to={`/s/${stationId}/trials/pairs`}>begin one</Link>, and say
          above which antenna was heard first.
        </p>
      )}
      {record && trial && pairs.length > 0 && (
        <div className="mt-1 flex flex-wrap items-end gap-3">
          <label className="text-sm text-dim">
            Trial
            <select
              className="ml-2 text-ink"
              value={trial.id}
              onChange={(event) => setTrialId(Number(event.target.value))}
            >
              {fitting.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <Button onClick={() => void add()}>Put {pairs.length} pairs into it</Button>
        </div>
      )}
    </div>
  );
}
