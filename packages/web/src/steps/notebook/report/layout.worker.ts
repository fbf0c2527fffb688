import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { layOut } from '../../../ui/pdf-layout';
import { reportFooter } from './report';

/** A document to be laid out; its foot is made here, functions do not cross. */
export interface LayoutQuestion {
  readonly definition: TDocumentDefinitions;
  readonly station: string;
}
/** How far it is, then the bytes, or what went wrong. */
export type LayoutReply =
  | { readonly say: 'step'; readonly share: number }
  | { readonly say: 'done'; readonly bytes: ArrayBuffer }
  | { readonly say: 'fault'; readonly message: string };

const post = (reply: LayoutReply, transfer: Transferable[] = []): void => self.postMessage(reply, { transfer });

self.onmessage = ({ data: { definition, station } }: MessageEvent<LayoutQuestion>): void => {
  layOut({ ...definition, footer: reportFooter(station) }, (share) => post({ say: 'step', share })).then(
    (bytes) => post({ say: 'done', bytes }, [bytes]),
    (error: unknown) =>
      post({ say: 'fault', message: error instanceof Error ? error.message : 'The pages could not be laid out.' }),
  );
};
