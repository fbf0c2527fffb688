import mono from '@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf?url';
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf?url';
import signs from '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf?url';
import pdfMake from 'pdfmake/build/pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { withSigns } from './pdf-signs';

const absolute = (address: string): string => new URL(address, self.location.href).href;
const face = (normal: string, heavy: string) => ({
  normal: absolute(normal),
  bold: absolute(heavy),
  italics: absolute(normal),
  bolditalics: absolute(heavy),
});

const isContent = (value: unknown): value is Content =>
  typeof value === 'string' || (typeof value === 'object' && value !== null);
const contentOf = (value: unknown, { content }: TDocumentDefinitions): Content => (isContent(value) ? value : content);

/**
 * Lays a document out as PDF, in a page or in a worker. What the faces "Text" and "Mono" lack (λ, Γ, η, arrows) is set in "Signs".
 * @param onStep share of the pages that are drawn, 0 to 1
 */
export async function layOut(definition: TDocumentDefinitions, onStep?: (share: number) => void): Promise<ArrayBuffer> {
  pdfMake.addFonts({ Text: face(regular, bold), Mono: face(mono, mono), Signs: face(signs, signs) });
  if (onStep) pdfMake.setProgressCallback(onStep);
  const document = pdfMake.createPdf({ ...definition, content: contentOf(withSigns(definition.content), definition) });
  const blob = await document.getBlob();
  return blob.arrayBuffer();
}
