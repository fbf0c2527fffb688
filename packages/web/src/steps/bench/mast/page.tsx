import { SCHEMAS, BLANK, type Saved } from '@velvet-reed/contract';
import { type Draft, tryDraft } from '@velvet-reed/core/antenna';
import { CUT_WORDS, dipOf, findResonances, gettingWorse, nextCut } from '@velvet-reed/core/sweep';
import { frequencyText, lengthText, showFrequency, showLength } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { useOutbox } from '../../../data/outbox';
import { isTemporary } from '../../../data/outbox-queue';
import { useSamples } from '../../../data/samples';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { AntennaPicker } from '../../../ui/antenna-picker';
import { RecordForm } from '../../../ui/record-form';
import { Caution } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { typedFrequency, typedLength } from '../../../ui/typed';
import { useArrival } from '../../../ui/use-arrival';
import { Value } from '../../../ui/value';
import { cutProvenance } from '@velvet-reed/station/bench/loaded-sweep';
import { uprightPhotos } from '../../../ui/upright-photo';
import { PhotoField } from '../photo-field';
import { trimChanges, trimDoubt, trimStory } from '../trim-record';

/** The Bench at the foot of the mast: what to cut, that it was cut, what it reads now. One thumb is enough. */
export default function FieldPage() {
  return <StationPage>{(data) => <Field data={data} />}</StationPage>;
}

const TITLE = 'At the mast, Bench';

function Field({ data }: { readonly data: StationData }) {
  useArrival(TITLE);
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const draftOf = (id: number) => {
    const revision = latestRevision(data, id);
    return revision && tryDraft(designOf(data, revision)).draft;
  };
  // only what can be made at all has a length to cut
  const able = data.antennas.filter(({ id }) => draftOf(id));
  const antenna =
    able.find(({ id }) => id === Number(params.get('antenna'))) ??
    able.find(({ id }) => data.trimSteps.some((step) => step.antennaId === id)) ??
    able.at(-1);
  const revision = antenna && latestRevision(data, antenna.id);
  const draft = antenna && draftOf(antenna.id);
  return (
    <main id="sheet" tabIndex={-1} className="mx-auto max-w-xl bg-sheet px-4 py-4 outline-none">
      <h1 className="sr-only">{TITLE}</h1>
      <div className="flex flex-wrap items-center justify-between gap-3">
        {antenna && (
          <AntennaPicker
            data={{ ...data, antennas: able }}
            value={antenna.id}
            onPick={(id) => setParams({ antenna: String(id) })}
          />
        )}
        <Link
          className="py-2 text-plum underline"
          to={`/s/${stationId}/bench/trim${antenna ? `?antenna=${antenna.id}` : ''}`}
        >
          Back to the whole Bench
        </Link>
      </div>
      {antenna && revision && draft ? (
        <Steps key={antenna.id} data={data} antenna={antenna} revision={revision} draft={draft} />
      ) : (
        <p className="verdict my-6 text-xl">
          No antenna is drafted yet.{' '}
          <Link className="text-plum underline" to={`/s/${stationId}/choose/ranking`}>
            Choose one first.
          </Link>
        </p>
      )}
    </main>
  );
}

function Steps({
  data,
  antenna,
  revision,
  draft,
}: {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'>;
  readonly revision: Saved<'revisions'>;
  readonly draft: Draft;
}) {
  const design = designOf(data, revision);
  const stationId = useStationId();
  const record = useOutbox(stationId);
  const [cutMade, setCutMade] = useState(false);
  const [photo, setPhoto] = useState<File>();
  const { trimName } = draft;
  const startLengthM = draft.pieces[0].cutM;
  // with those that wait in this browser: advice counts them as made
  const steps = data.trimSteps.filter((step) => step.antennaId === antenna.id);
  const last = steps.at(-1);
  const headers = data.sweeps.filter((sweep) => sweep.antennaId === antenna.id).slice(-1);
  const sweep = useSamples(headers).data?.get(headers[0]?.id ?? 0);
  const sweptHz = sweep && dipOf(findResonances(sweep), design.freqHz)?.freqHz;
  const cut = steps.length > 0 ? nextCut(steps, design.freqHz) : undefined;
  const readingHz = last?.freqHz ?? sweptHz;
  const asking = cutMade || steps.length === 0;
  return (
    <>
      <div data-evidence>
        <p className="mt-4 text-lg">
          {readingHz === undefined ? 'No dip yet' : 'Dip now'}
          <span className="block font-mono text-[clamp(2.2rem,13vw,3rem)] leading-tight font-bold">
            {readingHz === undefined ? (
              '–'
            ) : (
              <Value
                strong
                shown={showFrequency(readingHz, 5)}
                provenance={{
                  origin: 'measured',
                  formula: last ? 'the last dip written down' : 'the dip of the last sweep nearest to the target',
                  source: last ? 'your trim diary' : 'your sweep',
                }}
              />
            )}
          </span>
          <span className="text-dim">wanted {frequencyText(design.freqHz, 5)}</span>
        </p>
        {gettingWorse(steps, design.freqHz) && (
          <p role="alert" className="mt-3 border-l-4 border-danger pl-3 text-lg">
            Two cuts in a row made it worse. Stop and look for the cause: another wire, a loose joint, a branch.
          </p>
        )}
        <p className="verdict my-4 border-y border-rule py-3 text-2xl">
          {!cut ? (
            <>Measure the length of {trimName} and its dip; the first cut follows from them.</>
          ) : cut.state === 'cut' ? (
            <>
              Cut <Value strong shown={showLength(cut.cutM, 2)} provenance={cutProvenance(cut)} /> off {trimName}, to{' '}
              {lengthText(cut.newLengthM, 4)}.
            </>
          ) : (
            CUT_WORDS[cut.state]
          )}
        </p>
      </div>
      {cut?.state === 'cut' && (
        <label className="my-3 flex min-h-14 items-center gap-4 border border-dim px-4 text-xl">
          <input
            type="checkbox"
            className="size-7"
            checked={cutMade}
            onChange={(event) => setCutMade(event.target.checked)}
          />
          It is cut
        </label>
      )}
      <Caution of={['height', 'wind', 'touching']} />
      {(asking || cut?.state !== 'cut') && (
        <div className="text-lg">
          <RecordForm
            key={`${steps.length} ${asking}`}
            fields={[
              {
                name: 'lengthM',
                label: `Length of ${trimName} now`,
                kind: 'quantity',
                dimension: 'length',
                bareUnit: 'mm',
              },
              { name: 'freqHz', label: 'Dip now', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
              { name: 'note', label: 'Note', kind: 'text' },
              { name: 'undoNote', label: 'How to undo it', kind: 'text' },
            ]}
            schema={SCHEMAS.trimSteps}
            fixed={{ ...BLANK.trimSteps, antennaId: antenna.id, revisionId: revision.id }}
            start={{
              lengthM: typedLength(cut?.state === 'cut' ? cut.newLengthM : (last?.lengthM ?? startLengthM)),
              freqHz: steps.length === 0 && sweptHz ? typedFrequency(Math.round(sweptHz)) : '',
              note: '',
              undoNote: '',
            }}
            submit="Write it down"
            doubt={(values) => trimDoubt(values, steps, { targetHz: design.freqHz, startLengthM })}
            onSave={async (values) => {
              const step = { ...values, atMs: Date.now() };
              const done = await record(
                trimChanges(antenna.name, trimName, step, photo),
                trimStory(trimName, step),
                await uprightPhotos(photo ? [photo] : []),
              );
              setPhoto(undefined);
              setCutMade(false);
              if (done === 'saved') toast.success('Recorded.');
            }}
          >
            <PhotoField photo={photo} onPhoto={setPhoto} />
          </RecordForm>
        </div>
      )}
      {steps.length > 0 && (
        <ol className="mt-4 border-t border-rule" aria-label="Lengths so far, latest first">
          {[...steps].reverse().map((step, i) => (
            <li key={`${step.lengthM} ${i}`} className="flex justify-between border-b border-rule py-2 font-mono">
              <span>{lengthText(step.lengthM, 4)}</span>
              <span>{frequencyText(step.freqHz, 5)}</span>
              <span className="font-sans text-sm text-dim">{isTemporary(step.id) ? 'waits here' : 'saved'}</span>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}
