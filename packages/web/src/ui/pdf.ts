import mono from '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf?url';
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf?url';
import { saveAs } from 'file-saver';
import pdfMake from 'pdfmake/build/pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const absolute = (address: string): string => new URL(address, location.href).href;
const face = (normal: string, heavy: string) => ({
  normal: absolute(normal),
  bold: absolute(heavy),
  italics: absolute(normal),
  bolditalics: absolute(heavy),
});

/** Writes a document as PDF and hands it to the browser's download. Faces "Text" and "Mono", in full, so that Ω, λ and µ survive. */
export async function savePdf(definition: TDocumentDefinitions, name: string): Promise<void> {
  pdfMake.addFonts({ Text: face(regular, bold), Mono: face(mono, mono) });
  saveAs(await pdfMake.createPdf(definition).getBlob(), name);
}
