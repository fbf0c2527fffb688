import { OutOfRangeError } from '../errors';
import { distance, type Point, type WireModel } from '../solver/model';

/** Printable area of sheets inside a 10 mm border, millimetres. */
const SHEETS: readonly { readonly name: string; readonly widthMm: number; readonly heightMm: number }[] = [
  { name: 'A4', widthMm: 190, heightMm: 277 },
  { name: 'A3', widthMm: 277, heightMm: 400 },
];
const BORDER_MM = 10;
/** Room for the ruler and the title below the drawing. */
const FOOT_MM = 22;
const RULER_MM = 100;

interface Line {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A drawing at full size: millimetres, y down. */
export interface Template {
  readonly sheet: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly wires: readonly (Line & { readonly name: string; readonly lengthMm: number })[];
  /** Where to fix, bend or drill: bends and joints where wires meet, free ends, and the feed. */
  readonly marks: readonly { readonly x: number; readonly y: number; readonly what: 'joint' | 'feed' | 'end' }[];
  /** Which way it is seen. */
  readonly view: string;
}

const VIEWS = [
  { drop: 0, axes: [1, 2], name: 'seen from the front' },
  { drop: 1, axes: [0, 2], name: 'seen from the side' },
  { drop: 2, axes: [0, 1], name: 'seen from above' },
] as const;

/**
 * The wires at full size on the smallest sheet that takes them, seen along the axis in which they extend least; wires that leave that
 * plane are drawn foreshortened and keep their true length in the label.
 * @throws OutOfRangeError when no sheet is large enough.
 */
export function templateOf(model: WireModel): Template {
  const points = model.wires.flatMap((wire) => [wire.from, wire.to]);
  const extent = (axis: 0 | 1 | 2): number =>
    Math.max(...points.map((p) => p[axis])) - Math.min(...points.map((p) => p[axis]));
  const view = [...VIEWS].sort((a, b) => extent(a.drop) - extent(b.drop))[0];
  const [u, v] = view.axes;
  const [wide, high] = [extent(u) * 1000, extent(v) * 1000];
  const fits = SHEETS.flatMap(({ name, widthMm, heightMm }) => {
    const upright = wide <= widthMm && high <= heightMm - FOOT_MM;
    const across = wide <= heightMm && high <= widthMm - FOOT_MM;
    if (upright) return [{ name, widthMm, heightMm }];
    return across ? [{ name: `${name} across`, widthMm: heightMm, heightMm: widthMm }] : [];
  })[0];
  if (!fits)
    throw new OutOfRangeError(
      `It is ${Math.round(wide)} × ${Math.round(high)} mm: larger than an A3 sheet. Use the cut list.`,
    );
  const left = Math.min(...points.map((p) => p[u])) * 1000;
  const top = Math.max(...points.map((p) => p[v])) * 1000;
  const x = (p: Point): number => BORDER_MM + (fits.widthMm - wide) / 2 + p[u] * 1000 - left;
  const y = (p: Point): number => BORDER_MM + (fits.heightMm - FOOT_MM - high) / 2 + top - p[v] * 1000;
  const joints = points.filter(
    (p, i) =>
      points.findIndex((q) => distance(p, q) < 1e-6) !== i && points.findIndex((q) => distance(p, q) < 1e-6) >= 0,
  );
  const ends = points.filter((p) => points.filter((q) => distance(p, q) < 1e-6).length === 1);
  const seen = new Set<string>();
  const feeds = model.ports.map(({ wire, position }) => {
    const { from, to } = model.wires[wire];
    return from.map((value, axis) => value + position * (to[axis] - value));
  });
  return {
    sheet: fits.name,
    widthMm: fits.widthMm + 2 * BORDER_MM,
    heightMm: fits.heightMm + 2 * BORDER_MM,
    view: view.name,
    wires: model.wires.map((wire, i) => ({
      name: wire.name ?? `wire ${i + 1}`,
      lengthMm: distance(wire.from, wire.to) * 1000,
      x1: x(wire.from),
      y1: y(wire.from),
      x2: x(wire.to),
      y2: y(wire.to),
    })),
    marks: [
      ...joints.flatMap((p) => {
        const key = `${x(p).toFixed(2)} ${y(p).toFixed(2)}`;
        if (seen.has(key)) return [];
        seen.add(key);
        return [{ x: x(p), y: y(p), what: 'joint' as const }];
      }),
      ...ends.map((p) => ({ x: x(p), y: y(p), what: 'end' as const })),
      ...feeds.map(([a, b, c]) => ({ x: x([a, b, c]), y: y([a, b, c]), what: 'feed' as const })),
    ],
  };
}

const mm = (value: number): string => value.toFixed(3);
const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** As SVG in millimetres, with a ruler to check the printer's scale. */
export function templateSvg(template: Template, title: string): string {
  const { widthMm, heightMm, wires, marks } = template;
  const foot = heightMm - BORDER_MM;
  const label = (x: number, y: number, text: string): string =>
    `<text x="${mm(x)}" y="${mm(y)}" font-size="3.2" font-family="sans-serif">${escaped(text)}</text>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">`,
    ...wires.map(
      (wire) =>
        `<line x1="${mm(wire.x1)}" y1="${mm(wire.y1)}" x2="${mm(wire.x2)}" y2="${mm(wire.y2)}" stroke="#000" stroke-width="0.3"/>`,
    ),
    ...wires.map((wire) =>
      label(
        (wire.x1 + wire.x2) / 2 + 1.5,
        (wire.y1 + wire.y2) / 2 - 1.5,
        `${wire.name} ${wire.lengthMm.toFixed(1)} mm`,
      ),
    ),
    ...marks.map((mark) =>
      mark.what === 'feed'
        ? `<circle cx="${mm(mark.x)}" cy="${mm(mark.y)}" r="2.2" fill="none" stroke="#000" stroke-width="0.3"/>`
        : mark.what === 'end'
          ? `<circle cx="${mm(mark.x)}" cy="${mm(mark.y)}" r="1" fill="none" stroke="#000" stroke-width="0.2"/>`
          : `<path d="M ${mm(mark.x - 2)} ${mm(mark.y)} h 4 M ${mm(mark.x)} ${mm(mark.y - 2)} v 4" stroke="#000" stroke-width="0.2"/>`,
    ),
    `<path d="M ${BORDER_MM} ${mm(foot - 8)} v 3 h ${RULER_MM} v -3" fill="none" stroke="#000" stroke-width="0.3"/>`,
    label(BORDER_MM, foot - 1, `This line must measure ${RULER_MM} mm: print at 100 %, without fitting to the page.`),
    label(
      BORDER_MM,
      foot + 3.5,
      `${title}, ${template.view}, ${template.sheet}. Large circle: feed; cross: bend or joint, drill and fix here; small circle: free end, fix here.`,
    ),
    '</svg>',
  ].join('\n');
}

/** As DXF (R12 text, millimetres, y up): lines on layer WIRES, marks as points on MARKS. */
export function templateDxf(template: Template): string {
  const { heightMm, wires, marks } = template;
  const flip = (y: number): string => mm(heightMm - y);
  const pairs = (...values: (string | number)[]): string => values.join('\n');
  return `${pairs(
    ...[
      0,
      'SECTION',
      2,
      'HEADER',
      9,
      '$ACADVER',
      1,
      'AC1009',
      9,
      '$INSUNITS',
      70,
      4,
      0,
      'ENDSEC',
      0,
      'SECTION',
      2,
      'ENTITIES',
    ],
    ...wires.flatMap((w) => [
      0,
      'LINE',
      8,
      'WIRES',
      10,
      mm(w.x1),
      20,
      flip(w.y1),
      30,
      0,
      11,
      mm(w.x2),
      21,
      flip(w.y2),
      31,
      0,
    ]),
    ...marks.flatMap((m) => [0, 'POINT', 8, 'MARKS', 10, mm(m.x), 20, flip(m.y), 30, 0]),
    ...[0, 'ENDSEC', 0, 'EOF'],
  )}\n`;
}
