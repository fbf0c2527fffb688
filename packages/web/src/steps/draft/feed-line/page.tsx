import { AZIMUTH_STEP_DEG, type FeedLineFigures } from '@velvet-reed/core/antenna';
import { fixed, frequencyText, significant } from '@velvet-reed/core/units';
import { type ReactNode, useState } from 'react';
import { placedAntenna } from '@velvet-reed/station/guard/drawing';
import { Curves } from '../../../ui/curves';
import { PolarPlot } from '../../../ui/polar-plot';
import { Next, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { DraftRoom } from '../draft-room';
import type { DraftState } from '../use-draft';
import { type FeedLineAsked, tryFeedLine } from './question';
import { type Study, StudyContext, useStudy } from './study';
import { useFeedLine } from './use-feed-line';

export default function FeedLineRoom() {
  return (
    <StationPage>
      {(data) => (
        <DraftRoom
          data={data}
          title="Feed line, Draft"
          verdict={() => <Sentence />}
          around={(draft, room) => <Studied draft={draft}>{room}</Studied>}
        >
          {() => <FeedLine />}
        </DraftRoom>
      )}
    </StationPage>
  );
}

/** Computes once for sentence, pictures and table. */
function Studied({ draft, children }: { readonly draft: DraftState; readonly children: ReactNode }) {
  const { data, antenna, design, groundId } = draft;
  const laid = placedAntenna(data, antenna.id) !== undefined;
  const cables = laid ? data.plotFeatures.filter(({ kind }) => kind === 'cable') : [];
  const sources = laid ? data.plotFeatures.filter(({ kind }) => kind === 'noise') : [];
  const [choices, setChoices] = useState<Study['choices']>(() => ({
    ...{ cableId: cables[0]?.id ?? null, earthed: false },
    sourceId: sources.at(-1)?.id ?? null,
  }));
  const typed = useTypedNumbers([
    { name: 'height', label: 'Then runs on at height', dimension: 'length', bareUnit: 'm', start: '0.1 m' },
    { name: 'run', label: 'Length of the run', dimension: 'length', bareUnit: 'm', start: '15 m' },
    { name: 'toward', label: 'Toward', dimension: 'angle', start: '180°' },
    { name: 'diameter', label: 'Shield, diameter', dimension: 'length', bareUnit: 'mm', start: '5 mm' },
    { name: 'at', label: 'Choke from the feed', dimension: 'length', bareUnit: 'm', start: '0 m', optional: true },
    { name: 'ohm', label: 'its resistance', dimension: 'resistance', bareUnit: 'Ω', start: '2000 Ω' },
    { name: 'reactance', label: 'and reactance', dimension: 'resistance', bareUnit: 'Ω', start: '0 Ω' },
    { name: 'second', label: 'Second choke at', dimension: 'length', bareUnit: 'm', start: '', optional: true },
    { name: 'elevation', label: 'Pattern at elevation', dimension: 'angle', start: '20°' },
  ]);
  const value = (name: string): number => typed.value(name) ?? 0;
  const chokeAt = (name: string) => {
    const atM = typed.value(name);
    return atM === undefined ? [] : [{ atM, ohm: value('ohm'), reactanceOhm: value('reactance') }];
  };
  const asked: FeedLineAsked | undefined = typed.sound
    ? {
        ...choices,
        ...{ heightM: value('height'), runM: value('run'), towardDeg: value('toward'), diameterM: value('diameter') },
        ...{ elevationDeg: value('elevation'), chokes: [...chokeAt('at'), ...chokeAt('second')] },
      }
    : undefined;
  const { question, fault } = asked
    ? tryFeedLine(data, { antennaId: antenna.id, design, groundId }, asked)
    : { question: undefined, fault: undefined };
  const state = useFeedLine(question);
  const source = sources.find(({ id }) => id === choices.sourceId);
  const study: Study = {
    ...{ draft, typed, asked, choices, laid },
    choose: (change) => setChoices((old) => ({ ...old, ...change })),
    sourceName: source?.name ?? 'a source beside the end of the cable',
    state: fault === undefined ? state : { known: {}, busy: false, fault },
  };
  return <StudyContext value={study}>{children}</StudyContext>;
}

const ohmText = (ohm: number): string =>
  ohm >= 1000 ? `${significant(ohm / 1000, 1)} kΩ` : `${significant(ohm, 1)} Ω`;

function Sentence() {
  const {
    draft: { antenna },
    sourceName,
    state: { whole, busy, fault, known },
  } = useStudy();
  if (fault)
    return (
      <>
        {fault} <Next>Next: change where the cable goes.</Next>
      </>
    );
  if (!whole)
    return (
      <>
        {busy
          ? `What the cable does to ${antenna.name} is being computed${known.places ? `, ${known.places.length} places for a choke so far` : ''}.`
          : `${antenna.name} has no wires of its own for a cable to join.`}{' '}
        <Next>{busy ? 'Next: wait a moment.' : 'Next: choose an antenna of wire.'}</Next>
      </>
    );
  const worseDb = whole.bare.pickUpDb - whole.alone.pickUpDb;
  const change = `${fixed(Math.abs(worseDb), 1)} dB ${worseDb >= 0 ? 'more' : 'less'} of ${sourceName}`;
  return (
    <>
      Through its cable {antenna.name} takes in {change} (model).{' '}
      <Next>
        {whole.helps
          ? `Next: a choke of ${ohmText(whole.neededOhm)} resistive, ${fixed(whole.best.atM, 1)} m from the feed, makes that ${fixed(whole.leftDb, 1)} dB.`
          : 'Next: no choke is needed against it; look at the source itself.'}
      </Next>
    </>
  );
}

const LOOKS = [
  ['alone', 'antenna alone'],
  ['bare', 'with its cable'],
  ['choked', 'with the chokes as stated'],
] as const;

function FeedLine() {
  const {
    draft: { design },
    state: { known },
    typed,
  } = useStudy();
  const shown = LOOKS.flatMap(([id, name], look) => {
    const figures = known[id];
    return figures ? [{ id, name, look, figures }] : [];
  });
  const azimuths = Array.from({ length: 360 / AZIMUTH_STEP_DEG + 1 }, (_, i) => i * AZIMUTH_STEP_DEG);
  return (
    <>
      {shown.length > 0 ? (
        <div className="mb-5 grid min-w-0 grid-cols-[minmax(0,1fr)] items-start gap-x-8 gap-y-3 md:grid-cols-[20rem_minmax(0,1fr)]">
          <figure data-evidence>
            <PolarPlot
              label={`Azimuth pattern at ${typed.value('elevation') ?? 0}° elevation: ${shown.map(({ name }) => name).join(', ')}`}
              shape="compass"
              front="north"
              curves={shown.map(({ name, look, figures }) => ({
                ...{ name, look, angleDeg: azimuths },
                gainDbi: azimuths.map((_, i) => figures.azimuthDbi[i % figures.azimuthDbi.length]),
              }))}
            />
            <figcaption className="text-sm">
              Full line: alone; dashed: with its cable{known.choked ? '; dotted: with the chokes' : ''}. At{' '}
              {frequencyText(design.freqHz)} (model)
            </figcaption>
          </figure>
          <div className="min-w-0">
            <Figures shown={shown} />
            <Places />
          </div>
        </div>
      ) : (
        <Empty>The outside of the cable is a wire of the antenna, too: say below where it goes.</Empty>
      )}
      <CableForm />
    </>
  );
}

function Figures({
  shown,
}: {
  readonly shown: readonly { readonly id: string; readonly name: string; readonly figures: FeedLineFigures }[];
}) {
  const alone = shown.find(({ id }) => id === 'alone')?.figures;
  return (
    <Wide label="What the cable changes">
      <table className="text-sm">
        <thead>
          <tr>
            <th scope="col" />
            <th scope="col">Impedance, Ω</th>
            <th scope="col">SWR</th>
            <th scope="col">Gain, dBi</th>
            <th scope="col">Null, dB</th>
            <th scope="col">Cable current, dB</th>
            <th scope="col">Source, dB</th>
          </tr>
        </thead>
        <tbody className="font-mono">
          {shown.map(({ id, name, figures: { impedance, swr, peakDbi, nullDb, currentDb, pickUpDb } }) => (
            <tr key={id}>
              <th scope="row" className="font-sans">
                {name}
              </th>
              <td>
                {fixed(impedance.re, 0)} {impedance.im < 0 ? '−' : '+'} j{fixed(Math.abs(impedance.im), 0)}
              </td>
              <td>{swr === null ? '∞' : fixed(swr, 1)}</td>
              <td>{fixed(peakDbi, 1)}</td>
              <td>{fixed(nullDb, 0)}</td>
              <td>{id === 'alone' ? 'none' : fixed(currentDb, 0)}</td>
              <td>{alone ? fixed(pickUpDb - alone.pickUpDb, 1) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-dim">
        Null: the deepest direction at this elevation. Cable current: largest on the shield over that of the feed.
        Source: against the antenna alone (model).
      </p>
    </Wide>
  );
}

/** How much of the source is left with one choke, over the place where it sits. */
function Places() {
  const { state } = useStudy();
  const { places = [], alone, bare } = state.known;
  if (places.length < 2 || !alone || !bare) return null;
  const without = bare.pickUpDb - alone.pickUpDb;
  const levels = [...places.map(({ pickUpDb }) => pickUpDb), without, 0];
  const [low, high] = [5 * Math.floor(Math.min(...levels) / 5), 5 * Math.ceil(Math.max(...levels) / 5 + 0.01)];
  const span = [0, places.at(-1)?.atM ?? 1] as const;
  const step = high - low > 40 ? 20 : high - low > 20 ? 10 : 5;
  return (
    <div className="mt-3">
      <Curves
        name="choke-places"
        x={{ head: 'choke from the feed (m)', decimals: 1 }}
        y={{ head: 'source against the antenna alone (dB)', decimals: 1 }}
        caption="Source, dB against the antenna alone, with one choke so far from the feed (m); dashed: without"
        label="What is left of the source with one choke, over its place along the cable"
        traces={[
          {
            id: 'choke',
            name: 'one choke',
            points: places.map(({ atM, pickUpDb }) => ({ x: atM, y: pickUpDb })),
            look: 0,
          },
          { id: 'none', name: 'no choke', points: span.map((x) => ({ x, y: without })), look: 1 },
        ]}
        bands={[]}
        markers={[]}
        visible={span}
        drawn={span}
        range={[low, high]}
        ticks={Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => low + i * step)}
        logarithmic={false}
        height={130}
      />
    </div>
  );
}

function CableForm() {
  const { draft, typed, choices, choose, laid } = useStudy();
  const { plotFeatures } = draft.data;
  const cables = plotFeatures.filter(({ kind }) => kind === 'cable');
  const sources = plotFeatures.filter(({ kind }) => kind === 'noise');
  const along = choices.cableId !== null;
  const hanging = new Set(['height', 'run', 'toward']);
  return (
    <Section title="The cable" hint="its outside joins one side of the feed">
      <TypedFields of={along ? { ...typed, fields: typed.fields.filter(({ name }) => !hanging.has(name)) } : typed}>
        <label className="text-sm text-dim">
          It goes
          <select
            className="mt-1 block max-w-full text-ink"
            value={choices.cableId ?? ''}
            onChange={(event) => choose({ cableId: event.target.value === '' ? null : Number(event.target.value) })}
          >
            <option value="">down, then on</option>
            {laid &&
              cables.map(({ id, name }) => (
                <option key={id} value={id}>
                  as on the Plot: {name}
                </option>
              ))}
          </select>
        </label>
        <label className="text-sm text-dim">
          Its far end
          <select
            className="mt-1 block text-ink"
            value={choices.earthed ? 'earth' : 'floats'}
            onChange={(event) => choose({ earthed: event.target.value === 'earth' })}
          >
            <option value="floats">floats with the receiver</option>
            <option value="earth">is earthed at a stake</option>
          </select>
        </label>
        <label className="text-sm text-dim">
          Source of noise
          <select
            className="mt-1 block max-w-full text-ink"
            value={choices.sourceId ?? ''}
            onChange={(event) => choose({ sourceId: event.target.value === '' ? null : Number(event.target.value) })}
          >
            <option value="">2 m beside its end</option>
            {laid &&
              sources.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
          </select>
        </label>
      </TypedFields>
      <p className="mt-2 max-w-prose text-sm text-dim">
        {laid ? '' : 'It is not on the Plot: forward is taken for north. '}The model takes a bare wire of the
        shield&apos;s thickness; a stake is taken for two wires of 3 m on the ground; house wiring is not in it. A choke
        of reactance alone can make it worse.
      </p>
    </Section>
  );
}
