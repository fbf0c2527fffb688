import { BLANK, type Change, createOf } from '@velvet-reed/contract';
import { antennaKind, SIGHT_WORDS } from '@velvet-reed/core/antenna';
import {
  type Candidate,
  type CandidateGroup,
  candidateKindName,
  COUNTS_FROM_DB,
  COUNTS_TO_DB,
  inGroups,
  isJudged,
  mayStay,
  type RankView,
  sizeWords,
  spoiltCount,
} from '@velvet-reed/core/choose';
import { capital, countText, freeName, frequencyText, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { designValues } from '@velvet-reed/station/derive';
import { newOrder } from '@velvet-reed/station/path/orders';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Value } from '../../../ui/value';
import { sumProvenance } from '../provenance';
import { Details } from './ranking-details';

/** Candidates in order, each with its reason, and everything behind it to open. */
export function RankingList({
  data,
  ranked,
  view,
  waiting,
  beside,
  onBeside,
  onLeave,
}: {
  readonly data: StationData;
  readonly ranked: readonly Candidate[];
  readonly view: RankView;
  /** Ids whose answers are still missing. */
  readonly waiting: ReadonlySet<string>;
  readonly beside: readonly string[];
  readonly onBeside: (id: string) => void;
  readonly onLeave: (id: string) => void;
}) {
  const known = ranked.filter(({ spec }) => !waiting.has(spec.id));
  const open = ranked.filter(({ spec }) => waiting.has(spec.id));
  const stays = known.filter((one) => mayStay(one) && isJudged(one));
  const folded = known.filter((one) => !stays.includes(one));
  const row = (candidate: Candidate) => (
    <Row
      key={candidate.spec.id}
      data={data}
      candidate={candidate}
      view={view}
      beside={beside.includes(candidate.spec.id)}
      onBeside={() => onBeside(candidate.spec.id)}
      onLeave={() => onLeave(candidate.spec.id)}
    />
  );
  return (
    <>
      <ol data-evidence className="evidence overflow-y-auto" aria-label="Ranking">
        {inGroups(stays).map(({ group, candidates }) => (
          <li key={group}>
            <h2 className="pt-2 pb-0.5 text-sm font-semibold text-dim">
              {GROUPS[group]} ({candidates.length})
            </h2>
            <ol className="border-t border-rule" aria-label={GROUPS[group]}>
              {candidates.map(row)}
            </ol>
          </li>
        ))}
        {open.map(({ spec }) => (
          <li key={spec.id} className="flex h-11 items-center border-b border-rule text-dim">
            {spec.name}: computing…
          </li>
        ))}
      </ol>
      {folded.length > 0 && (
        <details className="mt-2" open={stays.length + open.length === 0}>
          <summary className="cursor-pointer text-sm text-dim">
            {capital(countText(folded.length, 'antenna'))} not ranked: they do not fit, a rule forbids them, or nothing
            wanted lies in their range
          </summary>
          <ol className="border-t border-rule" aria-label="Not ranked">
            {folded.map(row)}
          </ol>
        </details>
      )}
    </>
  );
}

/** The groups that stand apart, as they are called. */
const GROUPS: Readonly<Record<CandidateGroup, string>> = {
  built: 'Built',
  drafted: 'Drafted, not yet built',
  'to buy': 'To buy',
  kinds: 'Kinds that could be built',
  failing: 'Not usable on all that is asked',
};

/** What a row stands for; of a kind that could be built, how large it would be here. */
const SOURCE = (spec: Candidate['spec']): string =>
  spec.source === 'bought'
    ? 'to buy'
    : spec.source === 'own'
      ? `${spec.standing ? 'built' : 'drafted'}, ${candidateKindName(spec).toLowerCase()}`
      : sizeWords(spec);

/** Bars run from what counts as not heard to where nobody hears a difference. */
const barX = (db: number): number =>
  (100 * (Math.min(COUNTS_TO_DB, Math.max(COUNTS_FROM_DB, db)) - COUNTS_FROM_DB)) / (COUNTS_TO_DB - COUNTS_FROM_DB);

/** "24 dB": a figure with its sign in front only where it is less than nothing. */
const wholeDb = (db: number): string => db.toFixed(0).replace('-', '−').replace(/^−0$/, '0');

function Row({
  data,
  candidate,
  view,
  beside,
  onBeside,
  onLeave,
}: {
  readonly data: StationData;
  readonly candidate: Candidate;
  readonly view: RankView;
  readonly beside: boolean;
  readonly onBeside: () => void;
  readonly onLeave: () => void;
}) {
  const [open, setOpen] = useState(false);
  const stationId = useStationId();
  const { spec, fit, forecasts, reason, withdrawn, additions, own } = candidate;
  const spoilt =
    spoiltCount(candidate) > 0 || forecasts.some(({ worstProduct }) => (worstProduct?.overNoiseDb ?? 0) > 0);
  // what is not judged has no figure
  const judged = isJudged(candidate);
  const { heard, burdenDb, sumDb, behindDb } = candidate;
  const source = SOURCE(spec);
  const school = spec.source === 'bought' ? undefined : antennaKind(spec.design.kind).school;
  const cut = spec.source === 'kind' ? `, ${frequencyText(spec.design.freqHz, 3)}` : '';
  return (
    <li className="border-b border-rule">
      <div className="grid min-h-11 grid-cols-[1fr_auto] items-center gap-x-4 md:grid-cols-[minmax(15rem,1fr)_5rem_13.5rem_auto]">
        <div className="min-w-0">
          <h3 className="truncate text-[0.95rem] leading-5 font-semibold">
            {spec.name}
            {cut}
            {additions.length > 0 && (
              <span className="ml-2 text-sm font-normal text-plum">
                with {additions.map(({ addition }) => addition.name).join(' and ')}
              </span>
            )}
          </h3>
          <p className={`truncate text-xs leading-4 ${!mayStay(candidate) || spoilt ? 'text-caution' : 'text-dim'}`}>
            {[source, reason].filter(Boolean).join('; ')}
          </p>
        </div>
        <div className="max-md:hidden">{judged && heard && <HeardBar heard={heard} />}</div>
        <div className="text-right leading-4">
          {!judged ? (
            <span className="text-sm text-dim">not judged</span>
          ) : (
            <>
              <Value
                strong
                shown={inDb(sumDb + burdenDb, 0, view === 'quiet' ? 'dB over noise' : 'dB of signal')}
                provenance={sumProvenance(candidate, view)}
              />
              {view === 'quiet' && heard && (
                <span className="ml-1 text-xs whitespace-nowrap text-dim">
                  {wholeDb(heard.low)} to {wholeDb(heard.high)}
                </span>
              )}
              <span className="block text-xs whitespace-nowrap text-dim">
                {view === 'quiet' && behindDb !== undefined && behindDb >= 0.5
                  ? `${wholeDb(behindDb)} under the best; `
                  : ''}
                less {wholeDb(burdenDb)} for effort: {wholeDb(sumDb)}
              </span>
            </>
          )}
        </div>
        <span className="flex items-center justify-end gap-2 whitespace-nowrap max-md:col-span-2">
          <Button look="quiet" aria-expanded={open} aria-label={`Why ${spec.name}`} onClick={() => setOpen(!open)}>
            Why
          </Button>
          <Pick data={data} candidate={candidate} />
        </span>
      </div>
      {/* hundreds of figures: they are drawn when somebody looks */}
      {open && (
        <div className="pb-3" role="group" aria-label={`About ${spec.name}`}>
          <p className="max-w-prose text-sm">{reason}</p>
          {school && <p className="max-w-prose text-sm text-dim">Practitioners differ: {school}</p>}
          {additions.map(({ addition, bringsDb }) => (
            <p key={addition.id} className="text-sm">
              With a {addition.name}: {addition.why}; it brings {bringsDb.toFixed(0)} dB for about {addition.price}{' '}
              (assumed).
            </p>
          ))}
          {own && (
            <p className="text-sm text-caution">
              Your own {own.name} puts about {wholeDb(own.levelDbm)} dBm{' '}
              {own.amplified ? 'into its amplifier' : 'on it'}
              {own.destroys ? ': more than a receiver or amplifier of unknown make is taken to bear.' : '.'}{' '}
              <Link className="text-plum underline" to={`/s/${stationId}/guard/states`}>
                Guard
              </Link>
            </p>
          )}
          <p className="text-sm text-dim">
            {fit.reason}; {SIGHT_WORDS[spec.burden.sight]}
            {spec.source === 'own'
              ? ''
              : `; price about ${spec.burden.price}, ${spec.burden.hours} h of work (assumed)`}
          </p>
          <div className="mt-1 flex flex-wrap items-center gap-x-5">
            <label className="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                checked={beside}
                onChange={onBeside}
                aria-label={`Set ${spec.name} side by side`}
              />
              Side by side
            </label>
            <Button look="quiet" onClick={onLeave} aria-label={`Leave out ${spec.name}`}>
              Leave out
            </Button>
            {withdrawn && <span className="text-sm text-caution">restriction of the station</span>}
          </div>
          <Details candidate={candidate} />
        </div>
      )}
    </li>
  );
}

function Pick({ data, candidate }: { readonly data: StationData; readonly candidate: Candidate }) {
  const stationId = useStationId();
  const navigate = useNavigate();
  const { trySave } = useWrite();
  const { spec, reason } = candidate;
  if (spec.source === 'bought') return <span className="text-sm text-dim">bought ready-made</span>;
  if (spec.source === 'own')
    return (
      <Button
        onClick={() => void navigate(`/s/${stationId}/draft/model?antenna=${spec.id.replace('own-', '')}`)}
        aria-label={`Open ${spec.name}`}
      >
        Open
      </Button>
    );
  const { design } = spec;
  const pick = async (): Promise<void> => {
    const name = freeName(
      `${spec.name} for ${frequencyText(design.freqHz, 3)}`,
      data.antennas.map((one) => one.name),
    );
    const target = data.targets.find((one) => design.freqHz >= one.lowHz && design.freqHz <= one.highHz);
    const spotId = data.spots.find(({ id }) => String(id) === spec.spot?.id)?.id ?? null;
    const hangs = { spotId, choke: 'yes' as const };
    const made = await trySave(
      [
        { op: 'create', resource: 'antennas', as: 'antenna', values: { name, targetId: target?.id ?? null, ...hangs } },
        {
          op: 'create',
          resource: 'revisions',
          values: { ...designValues(design), antennaId: { new: 'antenna' }, number: 1 },
        },
        ...pathOf(data, candidate, name),
        entry('choose', `Chose ${name}. ${reason}`),
      ],
      `${name} is on the Draft.`,
    );
    if (made) await navigate(`/s/${stationId}/draft/model?antenna=${made[0]}`);
  };
  return (
    <Button onClick={() => void pick()} disabled={!mayStay(candidate)} aria-label={`Draft the ${spec.name}`}>
      Draft it
    </Button>
  );
}

/** The path that a proposed filter or preamplifier belongs to: at the antenna, then the cable into the house. Nothing where nothing was proposed. */
function pathOf(data: StationData, { additions, forecasts }: Candidate, name: string): readonly Change[] {
  const target = data.targets.find(({ id }) => String(id) === forecasts[0]?.target.id);
  const receiver = data.receivers.find((one) => forecasts[0]?.receiver?.name.startsWith(one.name));
  if (additions.length === 0 || !target || !receiver) return [];
  const { cableId, lineLengthM } = data.station;
  const stages = [
    ...additions.map(({ addition: { name: stage, lossDb, amplifier, filter } }) => ({
      ...{ ...BLANK.pathStages, name: capital(stage), lossDb },
      ...(filter ? { ...filter, kind: 'filter' as const } : {}),
      ...(amplifier ? { ...amplifier, kind: 'amplifier' as const } : {}),
    })),
    { ...BLANK.pathStages, name: 'Cable into the house', kind: 'line' as const, cableId, lengthM: lineLengthM },
  ];
  const places = stages.map((_, i) => ({ new: `stage ${i}` }));
  return [
    createOf(
      'paths',
      {
        ...{ ...BLANK.paths, name: `Path of ${name}`, targetId: target.id, receiverId: receiver.id },
        antennaId: { new: 'antenna' },
      },
      'path',
    ),
    ...stages.map((stage, i) =>
      createOf('pathStages', { kind: 'line', ...stage, pathId: { new: 'path' } }, `stage ${i}`),
    ),
    ...newOrder({ new: 'path' }, 1, places),
    ...newOrder({ new: 'path' }, 2, places),
  ];
}

/** Middle and range of what is heard, over the whole span that counts; the line stands at the noise. */
function HeardBar({ heard }: { readonly heard: NonNullable<Candidate['heard']> }) {
  const [low, middle, high, noise] = [heard.low, heard.middle, heard.high, 0].map(barX);
  return (
    <svg viewBox="0 0 100 8" className="h-3 w-full" preserveAspectRatio="none" aria-hidden>
      <rect x={low} y="3.4" width={Math.max(0.4, high - low)} height="1.2" fill="var(--dim)" />
      <rect
        x={Math.min(noise, middle)}
        y="2.2"
        width={Math.abs(middle - noise)}
        height="3.6"
        fill={heard.middle >= 0 ? 'var(--reed)' : 'var(--caution)'}
      />
      <rect x={noise - 0.2} y="0" width="0.4" height="8" fill="var(--dim)" />
    </svg>
  );
}
