import { type Annotation, type Band, withAnnotations } from '@velvet-reed/core/recording';
import { saveText } from '../../../ui/export';
import type { ChosenFile } from './use-opened';
import type { Look } from './view';

/** The bands as annotations beside those that the description had. */
export function saveMarks(
  chosen: ChosenFile,
  signal: Band,
  quiet: Band | undefined,
  centreHz: number,
  whole: Look,
): void {
  const mark = (text: string, { offsetHz, bandwidthHz }: Band): Annotation => ({
    ...{ startS: whole.fromS, stopS: whole.toS, text },
    ...{ lowHz: centreHz + offsetHz - bandwidthHz / 2, highHz: centreHz + offsetHz + bandwidthHz / 2 },
  });
  const added = [mark('signal', signal), ...(quiet ? [mark('quiet band', quiet)] : [])];
  const meta = chosen.metaText ?? '{}';
  const rate = /"core:sample_rate"\s*:\s*([\d.eE+]+)/.exec(meta)?.[1];
  saveText(`${chosen.name}.sigmf-meta`, withAnnotations(meta, added, Number(rate)), 'application/json');
}
