import type { Saved } from '@velvet-reed/contract';
import { datasetNamed } from '@velvet-reed/core/recording';
import type { RecordingLayout, RecordingMeaning } from '@velvet-reed/core/recording';
import { useEffect, useMemo } from 'react';
import useSWRImmutable from 'swr/immutable';
import { pathOfFile } from '../../../data/data-file';
import type { StationData } from '@velvet-reed/station/record';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { useJob } from '../../../workers/use-job';

/** A file as it was chosen: a WAV, or a description with its data. */
export interface ChosenFile {
  readonly name: string;
  readonly file: Blob;
  readonly metaText?: string;
}

const META = /\.sigmf-meta$/i;
const DATA = /\.sigmf-data$/i;

/** By which the answers to a file are told from those to another. */
const keyOf = ({ name, file, metaText }: ChosenFile): string => `${name} ${file.size} ${metaText?.length ?? 0}`;

/** One recording out of the files that were chosen or dropped. @throws Error with what is missing. */
export async function chosenOf(files: readonly File[]): Promise<ChosenFile> {
  const meta = files.find(({ name }) => META.test(name));
  const metaText = await meta?.text();
  // a description may name its data, which are then in a format of their own
  const dataset = metaText === undefined ? undefined : datasetNamed(metaText);
  const data = files.find(({ name }) => (dataset === undefined ? DATA.test(name) : name === dataset));
  if (dataset !== undefined && !data)
    throw new Error(`This description is of the file ${dataset.slice(0, 80)}: choose the two together.`);
  if (meta && data && dataset === undefined && data.name.replace(DATA, '') !== meta.name.replace(META, ''))
    throw new Error(`${data.name} does not belong to ${meta.name}: choose the two files of one name together.`);
  if (meta && data && metaText !== undefined) return { name: data.name.replace(DATA, ''), file: data, metaText };
  if (meta ?? data)
    throw new Error('A SigMF recording is two files of one name: choose .sigmf-meta and .sigmf-data together.');
  const [file] = files;
  if (!file) throw new Error('No file was chosen.');
  return { name: file.name, file };
}

const fetchFile = async (address: string): Promise<Blob> => {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error('The kept file could not be read. Reload the page, or choose the file again.');
  return answer.blob();
};

/** The recording on the screen: its file, what its head says, what was answered, and the record in which its settings are kept. */
export interface Opened {
  readonly chosen?: ChosenFile;
  readonly layout?: RecordingLayout;
  readonly open?: OpenRecording;
  readonly record?: Saved<'recordings'>;
  readonly fault?: string;
  /** Its file is not here: to be chosen again. */
  readonly missing: boolean;
  readonly checksum?: string;
  readonly peakDbfs?: number;
  readonly clipped?: number;
  /** Whether the data are those whose checksum the description tells; true where it tells none. */
  readonly isDescribed?: boolean;
  /** The chosen file is another one than the record's. */
  readonly other: boolean;
}

export interface Answers {
  readonly meaning?: RecordingMeaning;
  readonly centreHz?: number;
  readonly channel?: 0 | 1;
}

/** @param record kept settings that were asked for; its file is fetched when it was kept too. */
export function useOpened(
  data: StationData,
  asked: Saved<'recordings'> | undefined,
  chosen: ChosenFile | undefined,
  answers: Answers,
): Opened {
  const address = (!chosen && pathOfFile(data.attachments, asked?.attachmentId ?? null)) || null;
  const fetched = useSWRImmutable<Blob, Error>(address, fetchFile);
  const shown = useMemo(
    (): ChosenFile | undefined =>
      chosen ?? (fetched.data && asked ? { name: asked.name, file: fetched.data } : undefined),
    [chosen, fetched.data, asked],
  );
  const head = useJob('openRecording');
  const proof = useJob('recordingProof');
  const { start: readHead } = head;
  useEffect(() => {
    if (!shown) return;
    readHead({
      ...{ file: shown.file, key: keyOf(shown) },
      ...(shown.metaText === undefined ? {} : { metaText: shown.metaText }),
    });
  }, [shown, readHead]);
  // an answer may still be of the file before
  const layout = shown && head.answer?.key === keyOf(shown) ? head.answer.layout : undefined;
  // a file that was looked at before is known by its checksum: its settings come back
  // the proof may still be of the file before, and what was said of that one is not true of this
  const known =
    proof.answer &&
    data.recordings.find(
      ({ checksum, fileBytes }) => checksum === proof.answer?.checksum && fileBytes === shown?.file.size,
    );
  const record = chosen ? known : asked;
  const meant = record?.meaning;
  const meaning =
    answers.meaning ?? (meant === 'real' || (layout && layout.channels > 1) ? meant : undefined) ?? layout?.meaning;
  const centreHz = answers.centreHz ?? record?.centreHz ?? layout?.captures[0]?.centreHz ?? 0;
  const channel = answers.channel ?? 0;
  const open = useMemo(
    (): OpenRecording | undefined =>
      shown && layout && meaning ? { file: shown.file, layout, meaning, centreHz, channel } : undefined,
    [shown, layout, meaning, centreHz, channel],
  );
  const { start: prove } = proof;
  const provable = open?.file;
  useEffect(() => {
    if (open) prove(open);
    // what is proven is the file, whatever is answered of it
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [provable, prove]);
  const fault = head.fault ?? fetched.error?.message;
  return {
    ...(shown ? { chosen: shown } : {}),
    ...(layout ? { layout } : {}),
    ...(open ? { open } : {}),
    ...(record ? { record } : {}),
    ...(fault === undefined ? {} : { fault }),
    missing: !shown && asked !== undefined && asked.attachmentId === null,
    other: Boolean(chosen && asked && proof.answer && asked.checksum !== proof.answer.checksum),
    ...(proof.answer ?? {}),
  };
}
