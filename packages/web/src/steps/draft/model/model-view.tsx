import { antennaKind, type Design } from '@velvet-reed/core/antenna';
import { reflectionOf, swrOf } from '@velvet-reed/core/line';
import { magnitude } from '@velvet-reed/core/numeric';
import { groundClass, type ModelQuestion, type SpotAnalysis } from '@velvet-reed/core/solver';
import { significant, inDb } from '@velvet-reed/core/units';
import { lazy, Suspense, useMemo, useRef, type ReactNode } from 'react';
import { largeModelText, type ModelState } from '../../../data/model';
import { ExportButtons } from '../../../ui/export-buttons';
import { Section } from '../../../ui/section';
import { Waiting } from '../../../ui/states';
import { Value } from '../../../ui/value';
import { modelProvenance, type ModelCurves } from '../model-figures';
import { Patterns } from '../patterns';
import { Wanted, type TargetHere } from './wanted-services';

const WireScene = lazy(() => import('../../../ui/wire-scene'));

const impedanceText = (z: { re: number; im: number }): string =>
  `${significant(z.re, 3)} ${z.im < 0 ? '−' : '+'} j${significant(Math.abs(z.im), 3)}`;

/** Elevation and azimuth pattern of the model. */
export function ModelPatterns({ state, question }: { readonly state: ModelState; readonly question: ModelQuestion }) {
  const { spot, sweep } = state;
  const curves = useMemo((): readonly ModelCurves[] => [{ name: 'model', look: 0, spot, sweep }], [spot, sweep]);
  if (state.trouble)
    return (
      <p role="alert" className="mb-3 max-w-prose text-danger">
        {state.trouble}
      </p>
    );
  return spot ? (
    <Patterns curves={curves} free={question.model.ground.type === 'free'} arrivalDeg={question.arrivalDeg} />
  ) : (
    <Waiting what={`the model ${largeModelText(state)}`.trim()} />
  );
}

/** What the wires do: figures, shape with currents, what each target gets. */
export function ModelView({
  design,
  groundId,
  question,
  state,
  wanted,
  onArrival,
  children,
}: {
  readonly design: Design;
  readonly groundId: string;
  readonly question: ModelQuestion;
  readonly state: ModelState;
  /** What the listener wants to hear. */
  readonly wanted: readonly TargetHere[];
  readonly onArrival: (angleDeg: number) => void;
  readonly children?: ReactNode;
}) {
  const { spot, sweep } = state;
  const sceneRef = useRef<HTMLElement>(null);
  const own = antennaKind(design.kind).ownGround;
  return (
    <Section
      title="Model"
      hint={`${own ? own.why : `over ${groundClass(groundId).name}`}${state.busy ? `; computing… ${largeModelText(state)}`.trimEnd() : state.ms ? `; ${(state.ms / 1000).toFixed(1)} s` : ''}`}
    >
      {spot && <Figures state={state} spot={spot} />}
      {children}
      {spot && (
        <figure ref={sceneRef} className="mb-5 max-w-3xl border-y border-rule" data-testid="wire-scene">
          <Suspense fallback={<Waiting what="the drawing" />}>
            <WireScene
              stretches={spot.stretches}
              surface={state.surface}
              ground={question.model.ground.type !== 'free'}
              label={`${antennaKind(design.kind).name} to scale with currents and pattern; drag to turn`}
            />
          </Suspense>
          <figcaption className="text-sm text-dim">
            To scale; thicker where more current flows. The net is the gain, 30 dB from its rim to the middle of the
            antenna; drag to turn. <ExportButtons of={sceneRef} name="antenna" />
          </figcaption>
        </figure>
      )}
      {spot && sweep && (
        <Wanted spot={spot} sweep={sweep} bands={wanted} arrivalDeg={question.arrivalDeg} onArrival={onArrival} />
      )}
      {spot?.lobeSpacingDeg !== undefined && spot.peak.gainDbi - spot.coarseGainDbi > 0.5 && (
        <p className="mt-2 max-w-prose text-sm text-caution">
          Lobes stand {spot.lobeSpacingDeg.toFixed(1)}° apart at this height: a grid of 5° would report{' '}
          {spot.coarseGainDbi.toFixed(1)} dBi. This one steps {spot.stepDeg.toFixed(1)}° or finer.
        </p>
      )}
      {[...(spot?.remarks ?? []), ...(sweep?.remarks ?? [])].slice(0, 3).map((remark) => (
        <p key={remark} className="mt-1 max-w-prose text-sm text-caution">
          {remark}
        </p>
      ))}
    </Section>
  );
}

function Figures({ state, spot }: { readonly state: ModelState; readonly spot: SpotAnalysis }) {
  const { peak } = spot;
  const swr = swrOf(magnitude(reflectionOf(spot.impedance, 50)));
  const rows: readonly (readonly [string, ReactNode])[] = [
    [
      'Feed impedance',
      <Value
        key="z"
        strong
        shown={{ digits: impedanceText(spot.impedance), unit: 'Ω' }}
        provenance={modelProvenance(state, 'voltage over current at the feed')}
      />,
    ],
    [
      'SWR on 50 Ω',
      <Value
        key="swr"
        strong
        shown={{ digits: swr === null ? '∞' : significant(swr, 3), unit: '' }}
        provenance={modelProvenance(state, '(1 + |Γ|) / (1 − |Γ|)')}
      />,
    ],
    [
      'Largest gain',
      <span key="g">
        <Value
          strong
          shown={inDb(peak.gainDbi, 1, 'dBi')}
          provenance={modelProvenance(state, '4π · intensity over accepted power, losses included')}
        />{' '}
        at {peak.elevationDeg.toFixed(peak.elevationDeg < 10 ? 1 : 0)}° elevation
      </span>,
    ],
    [
      'Front to back, front to side',
      <span key="fb">
        <Value
          shown={inDb(spot.frontToBackDb, 1)}
          provenance={modelProvenance(state, 'gain forward over gain backward at that elevation')}
        />
        ,{' '}
        <Value
          shown={inDb(spot.frontToSideDb, 1)}
          provenance={modelProvenance(state, 'gain forward over the larger gain at right angles')}
        />
      </span>,
    ],
    [
      'Main lobe, 3 dB width',
      spot.azimuthWidthDeg === undefined ? (
        'all round'
      ) : (
        <Value
          key="w"
          shown={{ digits: spot.azimuthWidthDeg.toFixed(0), unit: '° in azimuth' }}
          provenance={modelProvenance(
            state,
            'between the directions where the gain has fallen by half, at the peak’s elevation',
          )}
        />
      ),
    ],
    [
      'Efficiency',
      <Value
        key="e"
        shown={{ digits: significant(100 * spot.efficiency, spot.efficiency > 0.1 ? 3 : 2), unit: '%' }}
        provenance={modelProvenance(
          state,
          'accepted power less what conductors and loads turn into heat; ground loss not counted',
        )}
      />,
    ],
    [
      'Receiving directivity',
      <Value
        key="rdf"
        shown={inDb(spot.receivingDirectivityDb, 1)}
        provenance={modelProvenance(
          state,
          'largest gain over the average in all directions, nothing from below ground',
        )}
      />,
    ],
    [
      'Reaches the sky',
      <Value
        key="r"
        shown={{ digits: significant(100 * spot.radiated, 2), unit: '%' }}
        provenance={modelProvenance(state, 'far-field power over accepted power: ground loss counted too')}
      />,
    ],
    [
      'Mesh',
      state.movement === undefined ? (
        'checking…'
      ) : (
        <span key="m">
          {spot.segments} segments, settled within{' '}
          <Value
            shown={{ digits: (100 * state.movement).toPrecision(1), unit: '%' }}
            provenance={modelProvenance(state, 'change of |Γ| on a mesh 1.6 times finer')}
          />
        </span>
      ),
    ],
  ];
  return (
    <dl className="mb-4 grid max-w-3xl grid-cols-[auto_1fr] gap-x-6 gap-y-1 sm:grid-cols-[auto_1fr_auto_1fr]">
      {rows.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-dim">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
