import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { CUT_WORDS, gettingWorse, nextCut } from '@velvet-reed/core/sweep';
import { frequencyText, lengthText, showLength } from '@velvet-reed/core/units';
import { useState } from 'react';
import { toast } from 'sonner';
import { pathOfFile } from '../../../data/data-file';
import { useOutbox } from '../../../data/outbox';
import { useStationId } from '../../../data/station';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { typedFrequency, typedLength } from '../../../ui/typed';
import { Value } from '../../../ui/value';
import { cutProvenance, slopeText } from '@velvet-reed/station/bench/loaded-sweep';
import { uprightPhotos } from '../../../ui/upright-photo';
import { PhotoField } from '../photo-field';
import { trimChanges, trimDoubt, trimStory } from '../trim-record';

/** Length and dip after every cut, and what each reading says about the next. */
export function TrimDiary({
  antenna,
  steps,
  files,
  targetHz,
  trimName,
  measuredHz,
  startLengthM,
}: {
  readonly antenna: Saved<'antennas'>;
  readonly steps: readonly Saved<'trimSteps'>[];
  readonly files: readonly Saved<'attachments'>[];
  readonly targetHz: number;
  readonly trimName: string;
  readonly measuredHz: number | undefined;
  readonly startLengthM: number;
}) {
  const record = useOutbox(useStationId());
  const fields: readonly FieldSpec[] = [
    {
      name: 'lengthM',
      label: `Length of ${trimName} now`,
      kind: 'quantity',
      dimension: 'length',
      bareUnit: 'mm',
      hint: 'measured the same way every time',
    },
    {
      name: 'freqHz',
      label: 'Dip measured at',
      kind: 'quantity',
      dimension: 'frequency',
      bareUnit: 'MHz',
      ...(measuredHz ? { hint: 'from the latest sweep' } : {}),
    },
    { name: 'note', label: 'Note', kind: 'text' },
    { name: 'undoNote', label: 'How to undo it', kind: 'text', hint: 'a folded end, the piece kept' },
  ];
  const [photo, setPhoto] = useState<File>();
  const last = steps.at(-1);
  const worse = gettingWorse(steps, targetHz);
  return (
    <Section title="Trim diary" hint={`target ${frequencyText(targetHz)}; cut half of the way, then measure`}>
      {worse && <p className="mb-2 text-caution">Two cuts in a row made it worse. Stop and look for the cause.</p>}
      {steps.length === 0 ? (
        <Empty>No length recorded yet. Enter the present length and the dip: the first cut follows from it.</Empty>
      ) : (
        <Wide label="Trim diary">
          <table className="w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Length of {trimName}</th>
                <th scope="col">Dip</th>
                <th scope="col">Slope</th>
                <th scope="col">Then cut</th>
                <th scope="col">Note</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {steps.map((step, i) => {
                const cut = nextCut(steps.slice(0, i + 1), targetHz);
                return (
                  <tr key={step.id}>
                    <td className="font-mono">{lengthText(step.lengthM, 4)}</td>
                    <td className="font-mono">{frequencyText(step.freqHz, 5)}</td>
                    <td className="font-mono whitespace-nowrap">
                      {slopeText(cut.slopeHzPerM)} <span className="font-sans text-xs text-dim">{cut.method}</span>
                    </td>
                    <td>
                      {cut.state === 'cut' ? (
                        <Value shown={showLength(cut.cutM, 2)} provenance={cutProvenance(cut)} />
                      ) : (
                        CUT_WORDS[cut.state].split(':')[0]
                      )}
                    </td>
                    <td className="text-sm">
                      {step.note}
                      {step.undoNote && <span className="block text-dim">undo: {step.undoNote}</span>}
                      {step.photoId !== null && (
                        <a href={pathOfFile(files, step.photoId)} className="block text-plum underline">
                          <img
                            src={pathOfFile(files, step.photoId)}
                            alt={`Photo at ${lengthText(step.lengthM, 4)}`}
                            className="mt-1 h-16 w-auto"
                          />
                        </a>
                      )}
                    </td>
                    <td>
                      <ChangeButton
                        resource="trimSteps"
                        record={step}
                        name={`Trim step at ${lengthText(step.lengthM, 4)}`}
                        fields={fields}
                      />
                      <DeleteButton
                        resource="trimSteps"
                        record={step}
                        name={`Trim step at ${lengthText(step.lengthM, 4)}`}
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Wide>
      )}
      <RecordForm
        fields={fields}
        schema={SCHEMAS.trimSteps}
        fixed={{ antennaId: antenna.id, photoId: null }}
        start={{
          lengthM: typedLength(last ? last.lengthM : startLengthM),
          freqHz: measuredHz ? typedFrequency(Math.round(measuredHz)) : '',
          note: '',
          undoNote: '',
        }}
        submit="Record this length"
        resetAfter
        doubt={(values) => trimDoubt(SCHEMAS.trimSteps.cast(values), steps, { targetHz, startLengthM })}
        onSave={async (values) => {
          const step = { ...SCHEMAS.trimSteps.cast(values), photoId: null };
          const done = await record(
            trimChanges(antenna.name, trimName, step, photo),
            trimStory(trimName, step),
            await uprightPhotos(photo ? [photo] : []),
          );
          setPhoto(undefined);
          if (done === 'saved') toast.success('Recorded.');
        }}
      >
        <PhotoField photo={photo} onPhoto={setPhoto} />
      </RecordForm>
    </Section>
  );
}
