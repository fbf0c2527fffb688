import { saveAs } from 'file-saver';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { layOut } from './pdf-layout';

/** Writes a document as PDF and hands it to the browser's download. */
export async function savePdf(definition: TDocumentDefinitions, name: string): Promise<void> {
  saveAs(new Blob([await layOut(definition)], { type: 'application/pdf' }), name);
}
