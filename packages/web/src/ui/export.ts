import { writeCsv } from '@velvet-reed/core/formats';
import { saveAs } from 'file-saver';

/** Table as CSV with a header: units in the heading, plain numbers in the cells. */
export function saveCsv(
  name: string,
  head: readonly string[],
  rows: readonly (readonly (string | number | null | undefined)[])[],
): void {
  saveAs(new Blob([writeCsv(head, rows)], { type: 'text/csv;charset=utf-8' }), name);
}

export const saveText = (name: string, text: string, type: string): void => saveAs(new Blob([text], { type }), name);

/** A drawing on the screen as a free-standing SVG: colours that hang on the theme are written out. */
function standaloneSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true);
  if (!(copy instanceof SVGSVGElement)) throw new Error('The drawing could not be copied. Try again.');
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  const style = getComputedStyle(svg);
  return new XMLSerializer()
    .serializeToString(copy)
    .replace(
      /var\((--[\w-]+)\)/g,
      (_, name: string) => style.getPropertyValue(name).trim().replaceAll('"', "'") || 'gray',
    );
}

/** Saves the first drawing below an element as SVG. */
export function saveSvg(name: string, svg: SVGSVGElement): void {
  saveText(name, standaloneSvg(svg), 'image/svg+xml');
}

/** A free-standing SVG text as PNG at twice its size, on the sheet's colour. */
export async function svgPng(text: string): Promise<Blob> {
  const image = new Image();
  const address = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  try {
    await new Promise((resolve, reject) => {
      image.onload = resolve;
      image.onerror = () => reject(new Error('The drawing could not be turned into a picture. Save it as SVG.'));
      image.src = address;
    });
    const canvas = document.createElement('canvas');
    canvas.width = 2 * image.naturalWidth;
    canvas.height = 2 * image.naturalHeight;
    const context = canvas.getContext('2d');
    if (!context) throw new Error('This browser draws no pictures. Save it as SVG.');
    context.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--sheet');
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await new Promise<Blob>((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be written.')))),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** Saves a drawing on the screen as PNG. */
export async function savePng(name: string, svg: SVGSVGElement): Promise<void> {
  saveAs(await svgPng(standaloneSvg(svg)), name);
}
