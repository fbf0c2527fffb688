import type { Provenance } from '@velvet-reed/station/said';
import { Announced } from '../../../ui/announced';
import type { Saved } from '@velvet-reed/contract';
import { knownDimensions } from '@velvet-reed/core/antenna';
import { coilFromTwoResonances, tunedCoil } from '@velvet-reed/core/resonator';
import { fixed, significant } from '@velvet-reed/core/units';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { Caution, Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { typedFrequency } from '../../../ui/typed';
import { useTypedNumbers, type TypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { CoilPicture } from './coil-picture';
import { NoiseRecording } from './noise-recording';
import { useKeptFigures } from '../use-kept-figures';
import type { NoiseOfCoil } from './use-noise-peak';
import { Fault } from '../fault';
import { tried } from '../../../ui/tried';
import { model } from './coil-provenance';
import { Positions } from './coil-positions';
import { Padding } from './coil-padding';

/** Of a rod wound with stranded wire, unless it is typed. */
const USUAL_Q = 85;

/** A coil on a rod or form: its values from two settings, its resonance from noise, what to pad, and whether it may be sealed. */
export function CoilByNoise({
  data,
  antenna,
  noise,
}: {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'> | undefined;
  readonly noise: NoiseOfCoil;
}) {
  const { peak } = noise;
  const kept = useKeptFigures(data, antenna, '');
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const isRod = design?.kind === 'ferrite-rod';
  const turns = isRod ? knownDimensions(design).turns : undefined;
  const coil = useTypedNumbers(
    [
      { name: 'turns', label: 'Turns', dimension: 'plain', start: turns === undefined ? '' : String(turns) },
      { name: 'c1', label: 'First capacitor, pF', dimension: 'plain', start: '' },
      { name: 'f1', label: 'with the first at', dimension: 'frequency', bareUnit: 'kHz', start: '' },
      { name: 'c2', label: 'Second capacitor, pF', dimension: 'plain', start: '' },
      { name: 'f2', label: 'with the second at', dimension: 'frequency', bareUnit: 'kHz', start: '' },
      {
        name: 'target',
        label: 'Target',
        dimension: 'frequency',
        bareUnit: 'kHz',
        start: design ? typedFrequency(design.freqHz) : '',
      },
      { name: 'q', label: 'Q', dimension: 'plain', start: String(USUAL_Q) },
    ],
    kept,
  );
  const values = coilValues(coil);
  return (
    <Section
      title="Coil and resonance by noise"
      hint="for ferrite rods and tuned loops: values, peak, padding, sealing"
    >
      <CoilPicture noise={noise} targetHz={coil.value('target')} q={Math.max(1, coil.value('q') ?? USUAL_Q)} />
      <Caution of={['ferrite', 'enamel']} />
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
    <Announced className="mt-2">
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
    </Announced>
  );
}
