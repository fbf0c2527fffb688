import { savePdf } from './pdf';

const POINTS_PER_MM = 72 / 25.4;

/** A drawing in millimetres as a PDF page of exactly its size. */
export const saveSheet = (
  svg: string,
  sheet: { readonly widthMm: number; readonly heightMm: number },
  name: string,
): Promise<void> =>
  savePdf(
    {
      pageSize: { width: sheet.widthMm * POINTS_PER_MM, height: sheet.heightMm * POINTS_PER_MM },
      pageMargins: 0,
      defaultStyle: { font: 'Text' },
      content: [{ svg: svg.replaceAll('sans-serif', 'Text'), width: sheet.widthMm * POINTS_PER_MM }],
    },
    name,
  );
