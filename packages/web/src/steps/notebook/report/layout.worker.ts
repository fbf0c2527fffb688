import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { layOut } from '../../../ui/pdf-layout';
import { reportFooter } from './report';

/** A document to be laid out; its foot is made here, functions do not cross. */
export interface LayoutQuestion {
  readonly definition: TDocumentDefinitions;
  readonly station: string;
  /** Comes back with each reply. */
  readonly id: number;
}
/** How far it is, then the bytes, or what went wrong. */
export type LayoutReply = { readonly id: number } & (
  | { readonly say: 'step'; readonly share: number }
  | { readonly say: 'done'; readonly bytes: ArrayBuffer }
  | { readonly say: 'fault'; readonly message: string }
);

const post = (reply: LayoutReply, transfer: Transferable[] = []): void => self.postMessage(reply, { transfer });

self.onmessage = ({ data: { definition, station, id } }: MessageEvent<LayoutQuestion>): void => {
  layOut({ ...definition, footer: reportFooter(station) }, (share) => post({ id, say: 'step', share })).then(
    (bytes) => post({ id, say: 'done', bytes }, [bytes]),
    (error: unknown) =>
      post({ id, say: 'fault', message: error instanceof Error ? error.message : 'The pages could not be laid out.' }),
  );
};
