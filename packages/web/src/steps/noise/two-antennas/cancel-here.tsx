import { cancellation, levelOf, type PairArrival, pairArrival } from '@velvet-reed/core/bearing';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { plug, readOrDropped, useInstruments } from '../../../data/instruments';
import { Button } from '../../../ui/button';
import { InstrumentChoice } from '../../../ui/instrument-choice';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

/** What is read one after the other: which antenna the box lets through, and the phase that it sets on the second. */
const STEPS = [
  { name: 'first', label: 'Antenna 1 alone', through: 'first', phaseDeg: 0 },
  { name: 'second', label: 'Antenna 2 alone', through: 'second', phaseDeg: 0 },
  { name: 'both', label: 'Both, 0 dB and 0°', through: 'both', phaseDeg: 0 },
  { name: 'turned', label: 'Both, 0 dB and 90°', through: 'both', phaseDeg: 90 },
  { name: 'set', label: 'Both, as set below', through: 'both', phaseDeg: 0 },
] as const;
type Step = (typeof STEPS)[number];

/** Levels of a source with a box that sets one antenna against the other: typed, or read by a meter; then the setting, and what it should leave. */
export function CancelHere() {
  const instruments = useInstruments();
  const meters = (instruments.data ?? []).filter(({ kind }) => kind === 'power-meter');
  const [meterId, setMeterId] = useState<string>();
  const meter = meters.find(({ id }) => id === meterId) ?? meters[0];
  const typed = useTypedNumbers([
    ...STEPS.map(({ name, label }) => ({
      ...{ name, label, dimension: 'level' as const, bareUnit: 'dBm', start: '', optional: true },
    })),
    { name: 'offDb', label: 'The box sets within', dimension: 'gain', start: '0.5 dB' },
    { name: 'offDeg', label: 'and within', dimension: 'angle', start: '4°' },
    { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '9.65 MHz' },
  ]);
  const [fault, setFault] = useState('');
  const value = typed.value;
  const arrival = ((): PairArrival | string | undefined => {
    const [first, second, both, bothTurned] = [value('first'), value('second'), value('both'), value('turned')];
    if (first === undefined || second === undefined || both === undefined || bothTurned === undefined) return undefined;
    try {
      return pairArrival({ first, second, both, bothTurned });
    } catch (error) {
      return error instanceof Error ? error.message : 'These levels cannot be read.';
    }
  })();
  const found = typeof arrival === 'object' ? arrival : undefined;
  const [offDb, offDeg] = [Math.abs(value('offDb') ?? 0), Math.abs(value('offDeg') ?? 0)];
  const predictedDb = cancellation(offDb, offDeg, 20).depthDb;
  const [first, left] = [value('first'), value('set')];
  const reachedDb = first === undefined || left === undefined ? undefined : first - left;
  const read = async (step: Step): Promise<void> => {
    if (!meter) return;
    setFault('');
    const setting =
      step.name === 'set' && found
        ? { gainDb: found.setDb, phaseDeg: found.setDeg }
        : { gainDb: 0, phaseDeg: step.phaseDeg };
    try {
      if (meter.standIn) await plug(meter.id, { box: { through: step.through, ...setting } });
      const readings: number[] = [];
      for (let i = 0; i < 3; i += 1)
        readings.push(await readOrDropped(meter.id, { what: 'power', freqHz: value('freq') ?? null }));
      const level = levelOf(readings);
      if (level === undefined) throw new Error('The power meter dropped every reading. Read once more.');
      typed.set(step.name, `${level.toFixed(1)} dBm`);
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'The reading failed. Try again.');
    }
  };
  return (
    <Section title="Cancel it here" hint="four levels tell how the source arrives on both; then the box is set">
      <TypedFields of={typed}>
        {meter && <InstrumentChoice label="Meter" all={meters} value={meter.id} onPick={setMeterId} />}
      </TypedFields>
      {meter && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          Read:
          {STEPS.map((step) => (
            <Button key={step.name} disabled={step.name === 'set' && !found} onClick={() => void read(step)}>
              {step.label}
            </Button>
          ))}
        </p>
      )}
      {(fault || typeof arrival === 'string') && (
        <p role="alert" className="mt-1 max-w-prose text-danger">
          {fault || (typeof arrival === 'string' ? arrival : '')}
        </p>
      )}
      {found && (
        <p className="mt-2 max-w-prose" data-testid="cancel-setting">
          It arrives on antenna 2 by {fixed(found.levelDb, 1)} dB and {fixed(found.phaseDeg, 0)}° (measured). Set{' '}
          <strong>
            {fixed(found.setDb, 1)} dB and {fixed(found.setDeg, 0)}°
          </strong>{' '}
          there. So exact, {predictedDb === null ? 'nothing' : `${fixed(-predictedDb, 1)} dB`} of it is left at most
          (model).
          {found.misfit > 0.2 && (
            <span className="text-caution">
              {' '}
              The four levels do not fit well: something else is heard, or it changed.
            </span>
          )}
          {reachedDb !== undefined &&
            ` Reached: ${fixed(-reachedDb, 1)} dB${predictedDb !== null && reachedDb >= predictedDb ? ', as deep as predicted or deeper.' : '; less deep than predicted: read the four levels again.'}`}
        </p>
      )}
      <p className="mt-1 max-w-prose text-sm text-dim">
        Never transmit into a box for receiving. At 0 dB and 0° the box must add both as they come.
      </p>
    </Section>
  );
}
