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

const SVG_NAMES = 'http://www.w3.org/2000/svg';
/** Lower ones are marks beside words. */
const LEAST_DRAWING_PX = 60;

/** A drawing on the screen as a free-standing SVG: colours that hang on the theme are written out. */
function standaloneSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true);
  if (!(copy instanceof SVGSVGElement)) throw new Error('The drawing could not be copied. Try again.');
  // one that was put together is not on the page and says its size itself
  const { width, height } = svg.isConnected
    ? svg.getBoundingClientRect()
    : { width: Number(svg.getAttribute('width')), height: Number(svg.getAttribute('height')) };
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  const style = getComputedStyle(svg.isConnected ? svg : document.documentElement);
  return new XMLSerializer()
    .serializeToString(copy)
    .replace(
      /var\((--[\w-]+)\)/g,
      (_, name: string) => style.getPropertyValue(name).trim().replaceAll('"', "'") || 'gray',
    );
}

/**
 * Everything drawn below an element as one drawing: a chart and its axis are drawings of their own on the page. What is scrolled or slid out of sight is
 * cut off. @returns undefined when nothing is drawn.
 */
export function drawingIn(host: Element): SVGSVGElement | undefined {
  const all = [...host.querySelectorAll('svg')].filter((one) => !one.parentElement?.closest('svg'));
  // marks of a legend are no drawings
  const drawn = all.filter((one) => one.getBoundingClientRect().height >= LEAST_DRAWING_PX);
  if (drawn.length <= 1) return drawn[0] ?? all[0];
  const boxes = drawn.map((one) => {
    const own = one.getBoundingClientRect();
    const clip = one.closest('.overflow-hidden')?.getBoundingClientRect() ?? own;
    const left = Math.max(own.left, clip.left);
    return { one, own, left, right: Math.min(own.right, clip.right), top: own.top, bottom: own.bottom };
  });
  const left = Math.min(...boxes.map((box) => box.left));
  const top = Math.min(...boxes.map((box) => box.top));
  const whole = document.createElementNS(SVG_NAMES, 'svg');
  whole.setAttribute('width', String(Math.max(...boxes.map((box) => box.right)) - left));
  whole.setAttribute('height', String(Math.max(...boxes.map((box) => box.bottom)) - top));
  for (const box of boxes) {
    const frame = document.createElementNS(SVG_NAMES, 'svg');
    const place = { x: box.left - left, y: box.top - top, width: box.right - box.left, height: box.own.height };
    for (const [name, value] of Object.entries(place)) frame.setAttribute(name, String(value));
    const copy = box.one.cloneNode(true);
    if (!(copy instanceof SVGSVGElement)) continue;
    const inside = { x: box.own.left - box.left, y: 0, width: box.own.width, height: box.own.height };
    for (const [name, value] of Object.entries(inside)) copy.setAttribute(name, String(value));
    frame.append(copy);
    whole.append(frame);
  }
  return whole;
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
