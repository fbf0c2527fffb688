import type { Saved } from '@velvet-reed/contract';
import { knownDimensions, measuredGate } from '@velvet-reed/core/antenna';
import { coilFromTwoResonances, padding, paddingChoices, tunedCoil } from '@velvet-reed/core/resonator';
import { type NoisePeak, sealingVerdict } from '@velvet-reed/core/sweep';
import { fixed, showFrequency, significant } from '@velvet-reed/core/units';
import { useState } from 'react';
import { designOf, latestRevision } from '../../data/derive';
import { entry, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Caution, Section } from '../../ui/stage';
import { TypedFields } from '../../ui/typed-numbers';
import { typedFrequency } from '../../ui/typed';
import { useTypedNumbers, type KeptTexts, type TypedNumbers } from '../../ui/use-typed-numbers';
import { inDb, Value, type Provenance } from '../../ui/value';
import { NoiseRecording } from './noise-recording';
import { useKeptCoil } from './use-kept-coil';
import { useNoisePeak } from './use-noise-peak';
import { Fault } from './fault';
import { tried } from './tried';

const model = (formula: string, source = 'tuned circuit; Terman, Radio Engineers’ Handbook'): Provenance => ({
  origin: 'model',
  formula,
  source,
});

/** A coil on a rod or form: its values from two settings, its resonance from noise, what to pad, and whether it may be sealed. */
export function CoilByNoise({
  data,
  antenna,
}: {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'> | undefined;
}) {
  const noise = useNoisePeak(data, antenna?.id);
  const { peak } = noise;
  const kept = useKeptCoil(data, antenna);
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const isRod = design?.kind === 'ferrite-rod';
  const turns = isRod ? knownDimensions(design).turns : undefined;
  const coil = useTypedNumbers(
    [
      { name: 'turns', label: 'Turns', dimension: 'plain', start: turns === undefined ? '' : String(turns) },
      { name: 'c1', label: 'First capacitor, pF', dimension: 'plain', start: '' },
      { name: 'f1', label: 'resonates at', dimension: 'frequency', bareUnit: 'kHz', start: '' },
      { name: 'c2', label: 'Second capacitor, pF', dimension: 'plain', start: '' },
      { name: 'f2', label: 'resonates at ', dimension: 'frequency', bareUnit: 'kHz', start: '' },
      {
        name: 'target',
        label: 'Target',
        dimension: 'frequency',
        bareUnit: 'kHz',
        start: design ? typedFrequency(design.freqHz) : '',
      },
      { name: 'q', label: 'Q', dimension: 'plain', start: '85' },
    ],
    kept,
  );
  const values = coilValues(coil);
  return (
    <Section
      title="Coil and resonance by noise"
      hint="for ferrite rods and tuned loops: values, peak, padding, sealing"
    >
      <Caution>Ferrite breaks into sharp shards: goggles, and sweep up. Strip enamel in moving air.</Caution>
      <h3 className="mt-2 font-semibold">From two capacitors</h3>
      <TypedFields of={coil} />
      <Fault text={values.fault} />
      {values.value && <CoilResult coil={coil} values={values.value} />}
      <NoiseRecording antennaId={antenna?.id} targetHz={coil.value('target')} noise={noise} />
      <Padding selfPf={values.value ? values.value.selfCapacitanceF * 1e12 : 0} coil={coil} peak={peak} kept={kept} />
      <Positions data={data} antenna={antenna} targetHz={coil.value('target')} kept={kept} />
    </Section>
  );
}

function coilValues(coil: TypedNumbers) {
  const [c1, f1, c2, f2] = ['c1', 'f1', 'c2', 'f2'].map((name) => coil.value(name));
  if (c1 === undefined || f1 === undefined || c2 === undefined || f2 === undefined) return {};
  return tried(() =>
    coilFromTwoResonances({ capacitanceF: c1 * 1e-12, freqHz: f1 }, { capacitanceF: c2 * 1e-12, freqHz: f2 }),
  );
}

function CoilResult({
  coil,
  values,
}: {
  readonly coil: TypedNumbers;
  readonly values: ReturnType<typeof coilFromTwoResonances>;
}) {
  const [turns, target, q, c1, f1] = ['turns', 'target', 'q', 'c1', 'f1'].map((name) => coil.value(name));
  const measured: Provenance = {
    origin: 'measured',
    formula: 'f² = 1/(4π²L(C + C_self)) at both settings',
    source: 'your two resonances; Terman, sec. 13',
  };
  const without = c1 && f1 ? 1 / ((2 * Math.PI * f1) ** 2 * c1 * 1e-12) : undefined;
  const designed =
    turns && target && q ? tried(() => tunedCoil({ turns, q, freqHz: target, lineOhm: 50, ...values })) : undefined;
  return (
    <div role="status" className="mt-2">
      <p>
        Self-capacitance{' '}
        <Value strong shown={{ digits: fixed(values.selfCapacitanceF * 1e12, 1), unit: 'pF' }} provenance={measured} />,
        inductance{' '}
        <Value strong shown={{ digits: significant(values.inductanceH * 1e3, 4), unit: 'mH' }} provenance={measured} />
        {turns ? (
          <>
            ,{' '}
            <Value
              shown={{ digits: fixed((values.inductanceH * 1e9) / turns ** 2, 2), unit: 'nH per turn²' }}
              provenance={measured}
            />
          </>
        ) : null}
        .{' '}
        {without !== undefined && Math.abs(without / values.inductanceH - 1) > 0.02 && (
          <span className="text-caution">
            Without the self-capacitance the first setting alone would say {significant(without * 1e3, 4)} mH:
            inconsistent with the second.
          </span>
        )}
      </p>
      <Fault text={designed?.fault} />
      {designed?.value && (
        <p>
          For the target: capacitor{' '}
          <Value
            shown={{ digits: fixed(designed.value.externalF * 1e12, 1), unit: 'pF' }}
            provenance={model('1/(ω²L) − C_self')}
          />
          , reactance{' '}
          <Value shown={{ digits: fixed(designed.value.reactanceOhm, 0), unit: 'Ω' }} provenance={model('ωL')} />,
          across it{' '}
          <Value
            shown={{ digits: fixed(designed.value.parallelOhm / 1000, 0), unit: 'kΩ' }}
            provenance={model('Q · ωL')}
          />
          , coupling turns for 50 Ω{' '}
          <Value
            shown={{ digits: fixed(designed.value.couplingTurns, 1), unit: '' }}
            provenance={model('N √(50 / R_p)')}
          />
          , then Q{' '}
          <Value
            shown={{ digits: fixed(designed.value.loadedQ, 1), unit: '' }}
            provenance={model('half when matched')}
          />
          .
        </p>
      )}
    </div>
  );
}

function Padding({
  selfPf,
  coil,
  peak,
  kept,
}: {
  readonly selfPf: number;
  readonly coil: TypedNumbers;
  readonly peak: NoisePeak | undefined;
  readonly kept: KeptTexts | undefined;
}) {
  const typed = useTypedNumbers(
    [
      { name: 'installed', label: 'Capacitor in it, pF', dimension: 'plain', start: '' },
      {
        ...{ name: 'peak', label: 'Peak now', dimension: 'frequency', bareUnit: 'kHz', start: '', optional: true },
        near: [coil.value('target') ?? 0],
      },
      // what would it do if this were fitted, whatever is advised
      { name: 'fitted', label: 'If I add, pF', dimension: 'plain', start: '', optional: true },
    ],
    kept,
  );
  const [installed, by] = [typed.value('installed'), typed.value('peak')];
  const [target, q] = [coil.value('target'), coil.value('q')];
  const measuredHz = by ?? peak?.centreHz;
  const found =
    installed !== undefined && measuredHz !== undefined && target !== undefined && q !== undefined
      ? tried(() =>
          padding({
            installedF: installed * 1e-12,
            selfF: selfPf * 1e-12,
            measuredHz,
            targetHz: target,
            q: peak?.q ?? q,
          }),
        )
      : undefined;
  const pad = found?.value;
  const choices = pad ? paddingChoices(pad.addF, 'E12') : [];
  const fitted = typed.value('fitted');
  return (
    <div className="mt-4">
      <h3 className="font-semibold">What to pad</h3>
      <TypedFields of={typed} />
      <Fault text={found?.fault} />
      {pad && (
        <div role="status" className="mt-1">
          <p>
            Add{' '}
            <Value
              strong
              shown={{ digits: fixed(pad.addF * 1e12, 1), unit: 'pF' }}
              provenance={model('(C + C_self)((f/f_t)² − 1)')}
            />{' '}
            ({fixed(pad.withoutSelfF * 1e12, 1)} pF without the self-capacitance); a picofarad moves it{' '}
            <Value
              shown={{ digits: fixed(Math.abs(pad.slopeHzPerF) * 1e-12, 1), unit: 'Hz' }}
              provenance={model('f / 2C')}
            />
            ; at the target <Value shown={inDb(pad.lossNowDb, 2)} provenance={model('10 log(1 + (Q(f/f₀ − f₀/f))²)')} />{' '}
            are lost until then.
          </p>
          {fitted !== undefined && installed !== undefined && installed + selfPf + fitted > 0 && (
            <p>
              With {significant(fitted, 3)} pF added it would resonate at{' '}
              <Value
                shown={showFrequency(pad.predictedHz(fitted * 1e-12), 4)}
                provenance={model('f √(C / (C + added))')}
              />
              .
            </p>
          )}
          <ul className="list-disc pl-5" aria-label="Capacitors to add">
            {choices.map((one) => (
              <li key={one.parts.join()}>
                {one.parts.map((part) => `${Number((part * 1e12).toPrecision(3))} pF`).join(' + ')}: predicted{' '}
                <Value
                  shown={{ digits: fixed(pad.predictedHz(one.sumF) / 1000, 2), unit: 'kHz' }}
                  provenance={model('f √(C / (C + added))', 'preferred values of IEC 60063, E12')}
                />
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}

const POSITIONS = ['first position', 'second position', 'third position'];

function Positions({
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
