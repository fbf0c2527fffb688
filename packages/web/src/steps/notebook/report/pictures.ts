import type { MeasuredPattern } from '@velvet-reed/core/bearing';
import { frequencyText } from '@velvet-reed/core/units';
import { scaleLinear, scaleUtc } from 'd3-scale';
import { line } from 'd3-shape';
import type { JudgedDirection } from '@velvet-reed/station/direction';
import { levelsOf } from '@velvet-reed/station/levels';
import type { StationData } from '@velvet-reed/station/record';
import type { OrderView } from '@velvet-reed/station/verdicts';

const WIDTH = 500;
const HEIGHT = 210;
const INK = '#5d2b4e';
const DASHES = ['', '7 4', '2 4', '11 4 2 4'];

/** A name as it may stand in a drawing. */
const safe = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
const svg = (parts: readonly string[], height = HEIGHT): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}">${parts.join('')}</svg>`;
const words = (x: number, y: number, text: string, anchor = 'start', size = 8): string =>
  `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size}" text-anchor="${anchor}">${safe(text)}</text>`;
const stroke = (
  from: readonly [number, number],
  to: readonly [number, number],
  colour = '#cccccc',
  width = 0.5,
): string =>
  `<line x1="${from[0].toFixed(1)}" y1="${from[1].toFixed(1)}" x2="${to[0].toFixed(1)}" y2="${to[1].toFixed(1)}" stroke="${colour}" stroke-width="${width}"/>`;

/** The plot with what stands on it and where the noise comes from, north up; undefined for an empty plan. */
export function planPicture(data: StationData, direction: JudgedDirection): string | undefined {
  const features = data.plotFeatures.filter(({ kind }) => kind !== 'picture');
  const turns = direction.turns.map(({ log }): readonly [number, number] => [log.xM, log.yM]);
  const points = [...features.flatMap((one) => one.points), ...turns];
  if (points.length === 0) return undefined;
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const height = 300;
  const scale = Math.min((WIDTH - 40) / Math.max(1, right - left), (height - 50) / Math.max(1, high - low));
  const at = ([x, y]: readonly [number, number]): readonly [number, number] => [
    20 + (x - left) * scale,
    height - 30 - (y - low) * scale,
  ];
  const parts = features.map(({ points: corners, name }) => {
    const placed = corners.map(at);
    const [first] = placed;
    const drawn =
      placed.length > 1
        ? `<polyline points="${placed.map((one) => one.map((v) => v.toFixed(1)).join()).join(' ')}" fill="none" stroke="#555555" stroke-width="1"/>`
        : `<circle cx="${first[0].toFixed(1)}" cy="${first[1].toFixed(1)}" r="2.5" fill="#555555"/>`;
    return drawn + words(first[0] + 4, first[1] - 4, name, 'start', 7);
  });
  for (const { log, bearingDeg } of direction.turns) {
    const [x, y] = at([log.xM, log.yM]);
    parts.push(`<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="2.5" fill="${INK}"/>`);
    if (bearingDeg === undefined) continue;
    const angle = (bearingDeg * Math.PI) / 180;
    parts.push(stroke([x, y], [x + 120 * Math.sin(angle), y - 120 * Math.cos(angle)], INK, 0.8));
  }
  if (direction.fix) {
    const { xM, yM, regionM } = direction.fix;
    const [x, y] = at([xM, yM]);
    const corners = regionM.map((corner) =>
      at(corner)
        .map((v) => v.toFixed(1))
        .join(),
    );
    parts.push(
      `<polygon points="${corners.join(' ')}" fill="none" stroke="${INK}" stroke-dasharray="3 2"/>`,
      words(x + 5, y + 3, 'noise, 95 %'),
    );
  }
  const ruler = 10 ** Math.floor(Math.log10((WIDTH - 40) / scale / 3));
  parts.push(
    stroke([20, height - 12], [20 + ruler * scale, height - 12], '#000000', 1),
    words(20, height - 2, `${ruler} m, north is up`),
  );
  return svg(parts, height);
}

/** Levels of the strongest signals from stage to stage; undefined when nothing comes in. */
export function levelPicture({ stages, analysis }: OrderView, receiver: string): string | undefined {
  const walks = [...analysis.walks].sort((a, b) => (b.levelsDbm[0] ?? 0) - (a.levelsDbm[0] ?? 0)).slice(0, 4);
  if (walks.length === 0 || stages.length === 0) return undefined;
  const names = [...stages.map(({ name }) => name), receiver];
  const levels = walks.flatMap(({ levelsDbm }) => levelsDbm);
  const y = scaleLinear()
    .domain([Math.min(...levels) - 5, Math.max(...levels) + 5])
    .nice()
    .range([HEIGHT - 34, 10]);
  const x = scaleLinear()
    .domain([0, Math.max(1, names.length - 1)])
    .range([44, WIDTH - 110]);
  const parts = y
    .ticks(6)
    .flatMap((tick) => [
      stroke([44, y(tick)], [WIDTH - 110, y(tick)]),
      words(40, y(tick) + 3, String(tick).replace('-', '−'), 'end'),
    ]);
  names.forEach((name, i) =>
    parts.push(words(x(i), HEIGHT - (i % 2 === 0 ? 20 : 9), name.slice(0, 18), i === 0 ? 'start' : 'middle', 7)),
  );
  walks.forEach(({ signal, levelsDbm }, look) => {
    const path = line<number>(
      (_, i) => x(i),
      (level) => y(level),
    )([...levelsDbm]);
    const dash = DASHES[look] ? ` stroke-dasharray="${DASHES[look]}"` : '';
    parts.push(
      `<path d="${path ?? ''}" fill="none" stroke="${INK}" stroke-width="1.3"${dash}/>`,
      words(WIDTH - 106, y(levelsDbm.at(-1) ?? 0) + 3 + 9 * look - 9, `${signal.name.slice(0, 24)}`, 'start', 7),
    );
  });
  return svg([...parts, words(2, 8, 'dBm')]);
}

/** The latest evening of the noise log; undefined for an empty one. */
export function noisePicture(data: StationData): string | undefined {
  const log = [...levelsOf(data).log].sort((a, b) => a.atMs - b.atMs);
  const last = log.at(-1);
  if (!last) return undefined;
  const shown = log.filter(({ atMs, freqHz }) => last.atMs - atMs < 86_400_000 && freqHz === last.freqHz);
  const y = scaleLinear()
    .domain([
      Math.min(...shown.map(({ levelDbm }) => levelDbm)) - 2,
      Math.max(...shown.map(({ levelDbm }) => levelDbm)) + 2,
    ])
    .nice()
    .range([HEIGHT - 24, 10]);
  const x = scaleUtc()
    .domain([shown[0].atMs, Math.max(last.atMs, shown[0].atMs + 60_000)])
    .range([44, WIDTH - 10]);
  const path = line<(typeof shown)[number]>(
    ({ atMs }) => x(atMs),
    ({ levelDbm }) => y(levelDbm),
  )(shown);
  return svg([
    ...y
      .ticks(5)
      .flatMap((tick) => [
        stroke([44, y(tick)], [WIDTH - 10, y(tick)]),
        words(40, y(tick) + 3, String(tick).replace('-', '−'), 'end'),
      ]),
    ...x.ticks(6).map((tick) => words(x(tick), HEIGHT - 10, tick.toISOString().slice(11, 16), 'middle')),
    `<path d="${path ?? ''}" fill="none" stroke="${INK}" stroke-width="1.3"/>`,
    words(2, 8, `dBm at ${frequencyText(last.freqHz)}, UTC of ${new Date(last.atMs).toISOString().slice(0, 10)}`),
  ]);
}

/** A measured pattern on a circle, from the strongest down to 30 dB. */
export function patternPicture({ levelsDb, stepDeg }: MeasuredPattern): string {
  const [size, floorDb] = [220, 30];
  const [cx, cy, radius] = [WIDTH / 2, size / 2, size / 2 - 16];
  const at = (deg: number, db: number): readonly [number, number] => {
    const r = radius * Math.max(0, 1 + db / floorDb);
    const angle = (deg * Math.PI) / 180;
    return [cx + r * Math.sin(angle), cy - r * Math.cos(angle)];
  };
  const rings = [0, -10, -20].map(
    (db) =>
      `<circle cx="${cx}" cy="${cy}" r="${(radius * (1 + db / floorDb)).toFixed(1)}" fill="none" stroke="#cccccc" stroke-width="0.5"/>${words(cx + 2, cy - radius * (1 + db / floorDb) + 8, `${db === 0 ? '0' : `−${-db}`} dB`, 'start', 6)}`,
  );
  const spokes = [0, 90, 180, 270].map((deg) => {
    const [x, y] = at(deg, 0);
    return (
      stroke([cx, cy], [x, y]) +
      words(
        cx + (radius + 9) * Math.sin((deg * Math.PI) / 180),
        cy - (radius + 9) * Math.cos((deg * Math.PI) / 180) + 3,
        `${deg}°`,
        'middle',
        7,
      )
    );
  });
  const drawn = levelsDb
    .flatMap((db, i) =>
      db === undefined
        ? []
        : [
            at(i * stepDeg, db)
              .map((v) => v.toFixed(1))
              .join(),
          ],
    )
    .join(' ');
  // an open line where not all directions were measured
  const shape = levelsDb.includes(undefined) ? 'polyline' : 'polygon';
  return svg(
    [...rings, ...spokes, `<${shape} points="${drawn}" fill="none" stroke="${INK}" stroke-width="1.3"/>`],
    size,
  );
}
