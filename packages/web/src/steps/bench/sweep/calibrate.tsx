import { packCalibration, type InstrumentCard, type Saved } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import type { SweepData } from '@velvet-reed/core/formats';
import {
  type Calibration,
  checkStandard,
  correctSweep,
  IDEAL_STANDARDS,
  STANDARD_NAMES,
  type StandardName,
  type Standards,
} from '@velvet-reed/core/sweep';
import { useState } from 'react';
import { useLiveSweep } from '../../../data/live-sweep';
import { showTrouble, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { STAND_IN_SLIP } from '../stand-in-slip';
import type { FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

const NAME_FIELD: readonly FieldSpec[] = [{ name: 'name', label: 'Name', kind: 'text' }];

interface Span {
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
}

/** Three standards one after the other, in any order, over the span that is set; then one of them again as a check. */
export function Calibrate({
  instrument,
  request,
  stored,
  kept,
  connect,
  onClose,
}: {
  readonly instrument: InstrumentCard;
  readonly request: Span | undefined;
  readonly stored: Calibration | undefined;
  /** All that are kept for this instrument. */
  readonly kept: readonly Saved<'calibrations'>[];
  readonly connect: (what: StandardName) => Promise<void>;
  readonly onClose: () => void;
}) {
  const { storeCalibration } = useWrite();
  const slip = instrument.standIn ? STAND_IN_SLIP : IDEAL_STANDARDS;
  const kit = useTypedNumbers([
    { name: 'openFarad', label: 'Open: fringe, fF', dimension: 'plain', start: String(slip.openFarad * 1e15) },
    { name: 'openDelay', label: 'Open: delay one way, ps', dimension: 'plain', start: String(slip.openDelayS * 1e12) },
    {
      name: 'shortDelay',
      label: 'Short: delay one way, ps',
      dimension: 'plain',
      start: String(slip.shortDelayS * 1e12),
    },
    { name: 'load', label: 'Load, Ω', dimension: 'plain', start: String(slip.loadOhm) },
  ]);
  const { live, start } = useLiveSweep();
  const [readings, setReadings] = useState<Partial<Record<StandardName, SweepData>>>({});
  const [found, setFound] = useState<{ readonly passed: boolean; readonly sentence: string }>();
  const [openFarad, openDelay, shortDelay, load] = ['openFarad', 'openDelay', 'shortDelay', 'load'].map((name) =>
    kit.value(name),
  );
  const standards: Standards | undefined =
    openFarad === undefined || openDelay === undefined || shortDelay === undefined || load === undefined
      ? undefined
      : {
          openFarad: openFarad * 1e-15,
          openDelayS: openDelay * 1e-12,
          shortHenry: 0,
          shortDelayS: shortDelay * 1e-12,
          loadOhm: load,
        };
  const { open, short, load: loaded } = readings;
  const sameSpan =
    open &&
    short &&
    loaded &&
    [short, loaded].every(
      ({ freqHz }) =>
        freqHz.length === open.freqHz.length && freqHz[0] === open.freqHz[0] && freqHz.at(-1) === open.freqHz.at(-1),
    );
  const measure = async (name: StandardName): Promise<SweepData | undefined> => {
    if (!request) return undefined;
    try {
      await connect(name);
      return await start({ instrument: instrument.id, ...request, averages: 4, repeat: false });
    } catch (error) {
      showTrouble(error);
      return undefined;
    }
  };
  const save = async (): Promise<void> => {
    if (!open || !short || !loaded || !standards) return;
    try {
      const whole = { freqHz: open.freqHz, readings: { open, short, load: loaded } };
      correctSweep(open, { ...whole, standards }); // two equal readings are refused here, before anything is stored
      await storeCalibration(packCalibration(whole), {
        name: `Calibration of the ${instrument.kind}`,
        instrument: instrument.id,
        madeMs: Date.now(),
        ...standards,
      });
      setReadings({});
    } catch (error) {
      showTrouble(error);
    }
  };
  const check = async (): Promise<void> => {
    const raw = await measure('load');
    if (!raw || !stored) return;
    try {
      setFound(checkStandard(correctSweep(raw, stored).sweep, 'load', stored.standards));
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFound({ passed: false, sentence: error.message });
    }
  };
  return (
    <div className="mt-2 border-l-2 border-rule pl-4">
      <p className="max-w-prose text-sm text-dim">
        Screw each standard onto the end of the cable that will carry the antenna: that end is the reference plane. Any
        order; constants stand on the slip of the kit (delays one way).
      </p>
      <TypedFields of={kit} />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {STANDARD_NAMES.map((name) => (
          <Button
            key={name}
            disabled={!request}
            busy={live.running}
            onClick={() =>
              void measure(name).then((reading) => reading && setReadings((old) => ({ ...old, [name]: reading })))
            }
          >
            {readings[name] ? `The ${name} is read: again` : `Read the ${name}`}
          </Button>
        ))}
        <Button look="main" disabled={!sameSpan || !standards || live.running} onClick={() => void save()}>
          Use this calibration
        </Button>
      </div>
      <p role="status" className="mt-1 min-h-6 text-sm text-dim">
        {open && short && loaded && !sameSpan
          ? 'The span changed between the standards: read them again over one span.'
          : `${Object.keys(readings).length} of 3 read.`}{' '}
        {live.fault}
      </p>
      {stored && (
        <div className="flex flex-wrap items-center gap-3">
          <Button busy={live.running} disabled={!request} onClick={() => void check()}>
            Check with the load
          </Button>
          {found && <p className={found.passed ? '' : 'text-danger'}>{found.sentence}</p>}
        </div>
      )}
      {kept.length > 0 && (
        <ul className="mt-2 text-sm" aria-label="Calibrations kept">
          {kept.map((one) => (
            <li key={one.id} className="flex flex-wrap items-baseline gap-x-3">
              {one.name}, {new Date(one.madeMs).toISOString().slice(0, 16).replace('T', ' ')} UTC, {one.points} points
              <ChangeButton resource="calibrations" record={one} name={one.name} fields={NAME_FIELD} />
              <DeleteButton resource="calibrations" record={one} name={one.name} />
            </li>
          ))}
        </ul>
      )}
      <Button look="quiet" className="mt-1" onClick={onClose}>
        Done: plug the antenna on again
      </Button>
    </div>
  );
}
