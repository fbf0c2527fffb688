import { cableRunM, earthDistance, type Finding, type PlanPoint, supportFindings } from '@velvet-reed/core/plot';
import { frequencyText, plain } from '@velvet-reed/core/units';
import { type LaidAntenna, runsOnPlan } from '@velvet-reed/station/derive';
import { plotFeaturesOf } from '@velvet-reed/station/plotted';
import { useFocus } from '../../../data/focus';
import type { StationData } from '@velvet-reed/station/record';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { inSystem, type UnitSystem } from './units';

const LOOK: Readonly<Record<Finding['state'], string>> = {
  good: '',
  caution: 'text-caution',
  danger: 'font-semibold text-danger',
};
const WORD: Readonly<Record<Finding['state'], string>> = { good: 'Good', caution: 'Look', danger: 'Danger' };

/** What the plan says about every antenna, support, earth and cable on it. */
export function Findings({ data, system }: { readonly data: StationData; readonly system: UnitSystem }) {
  const features = plotFeaturesOf(data);
  const laid = runsOnPlan(data);
  const dangers = supportFindings(features);
  return (
    <>
      <Section title="What fits" hint="length, sag, keep-outs, boundary">
        {laid.length === 0 ? (
          <p className="max-w-prose text-dim">
            No antenna lies on the plan yet. Draw one between two supports: then its span, sag and clearances stand
            here, and Draft computes it at these heights.
          </p>
        ) : (
          <ul>
            {laid.map((run) => (
              <LaidRun key={run.feature.id} run={run} system={system} />
            ))}
          </ul>
        )}
        {dangers.length > 0 && <FindingList findings={dangers} label="Supports" />}
      </Section>
      <Earths data={data} system={system} />
      <Cables data={data} system={system} />
    </>
  );
}

function FindingList({ findings, label }: { readonly findings: readonly Finding[]; readonly label: string }) {
  return (
    <ul className="mb-2 list-disc pl-5" aria-label={label}>
      {findings.map(({ state, sentence }) => (
        <li key={sentence} className={LOOK[state]}>
          {WORD[state]}: {sentence}
        </li>
      ))}
    </ul>
  );
}

function LaidRun({ run: { feature, layout }, system }: { readonly run: LaidAntenna; readonly system: UnitSystem }) {
  const { name } = feature;
  return (
    <li className="mb-3">
      <p>
        <strong>{name}</strong>: span{' '}
        <Value
          shown={inSystem(layout.spanM, system)}
          provenance={{ origin: 'measured', formula: 'distance between its ends on the plan', source: 'your plan' }}
        />
        , faces{' '}
        <Value
          shown={{ digits: layout.facingDeg.toFixed(0), unit: '° true' }}
          provenance={{
            origin: 'measured',
            formula: 'at right angles to a wire that hears across, along one that hears forward',
            inputs: [['lies along', `${layout.bearingDeg.toFixed(0)}°`]],
            source: 'your plan',
          }}
        />
        , sags{' '}
        <Value
          shown={inSystem(layout.sagM, system)}
          provenance={{
            origin: 'model',
            formula: 'ρ g L² / (8 σ), copper at a tenth of its breaking stress (assumed pull)',
            source: 'parabola for the catenary; wind, ice and feed line not counted',
          }}
        />{' '}
        to{' '}
        <Value
          shown={inSystem(layout.lowestM, system)}
          provenance={{ origin: 'model', formula: 'mean of the end heights − sag', source: 'your plan' }}
        />{' '}
        over ground.
      </p>
      <FindingList findings={layout.findings} label={`${name}, findings`} />
    </li>
  );
}

function Earths({ data, system }: { readonly data: StationData; readonly system: UnitSystem }) {
  const { band } = useFocus();
  const freqHz = Math.sqrt(band.lowHz * band.highHz);
  const features = plotFeaturesOf(data);
  const from = features.filter((one) => one.kind === 'antenna' || one.kind === 'feed');
  const rows = from.flatMap((one) => {
    const at: PlanPoint = one.points[0];
    const found = earthDistance(at, features, freqHz);
    return found ? [{ from: one.name, ...found }] : [];
  });
  if (rows.length === 0) return null;
  return (
    <Section title="RF earth" hint={`at ${frequencyText(freqHz)}, the middle of the focus band`}>
      <ul className="list-disc pl-5">
        {rows.map((row) => (
          <li key={row.from} className={row.distanceM > row.limitM ? 'text-caution' : ''}>
            {row.from} to {row.name}:{' '}
            <Value
              shown={inSystem(row.distanceM, system)}
              provenance={{ origin: 'measured', formula: 'distance on the plan', source: 'your plan' }}
            />
            ,{' '}
            <Value
              shown={{ digits: row.wavelengths.toPrecision(2), unit: 'λ' }}
              provenance={{ origin: 'model', formula: 'distance · f / c', source: 'free-space wavelength' }}
            />
            ; the limit of λ/10 is{' '}
            <Value
              shown={inSystem(row.limitM, system)}
              provenance={{
                origin: 'model',
                formula: 'c / 10 f',
                source: 'common practice: a longer lead is an antenna of its own',
              }}
            />
            . {row.distanceM > row.limitM ? 'Too far for an earth: use a counterpoise.' : 'Near enough.'}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-sm text-caution">
        An RF earth is no lightning earth. Bonding and arresters follow local code and a licensed electrician.
      </p>
    </Section>
  );
}

function Cables({ data, system }: { readonly data: StationData; readonly system: UnitSystem }) {
  const runs = data.plotFeatures.filter((one) => one.kind === 'cable');
  if (runs.length === 0) return null;
  return (
    <Section title="Cable runs" hint="Path takes these lengths for a line that names the run">
      <ul className="list-disc pl-5">
        {runs.map((run) => (
          <li key={run.id}>
            {run.name}:{' '}
            <Value
              strong
              shown={inSystem(cableRunM(run), system)}
              provenance={{
                origin: 'measured',
                formula: 'length on the plan plus the height at both ends',
                inputs: [
                  ['first end', plain(inSystem(run.heightM, system))],
                  ['last end', plain(inSystem(run.endHeightM, system))],
                ],
                source: 'your plan',
              }}
            />
            ; buy{' '}
            <Value
              shown={inSystem(1.1 * cableRunM(run), system)}
              provenance={{ origin: 'assumed', formula: 'a tenth more for bends and plugs', source: 'common practice' }}
            />
            .
            <span className="text-dim">
              {' '}
              {data.pathStages.some((stage) => stage.plotFeatureId === run.id)
                ? 'Used in Path.'
                : 'Not used in Path yet.'}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
