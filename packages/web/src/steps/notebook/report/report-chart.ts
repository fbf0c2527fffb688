import type { SweepData } from '@velvet-reed/core/formats';
import { swrOf } from '@velvet-reed/core/line';
import { decimate } from '@velvet-reed/core/sweep';
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';

const WIDTH = 500;
const HEIGHT = 190;
const LEFT = 34;
const BOTTOM = 22;
const DASHES = ['', '7 4', '2 4', '11 4 2 4'];

const escape = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** SWR of sweeps over frequency as an SVG text for print; black ink, dashes tell curves apart, labels at their dips. */
export function swrChart(
  sweeps: readonly { readonly name: string; readonly sweep: SweepData }[],
  bands: readonly { readonly name: string; readonly lowHz: number; readonly highHz: number }[],
): string {
  const lowHz = Math.min(...sweeps.map(({ sweep }) => sweep.freqHz[0]));
  const highHz = Math.max(...sweeps.map(({ sweep }) => sweep.freqHz[sweep.freqHz.length - 1]));
  const x = scaleLinear()
    .domain([lowHz, highHz])
    .range([LEFT, WIDTH - 8]);
  const y = scaleLog()
    .domain([1, 10])
    .range([HEIGHT - BOTTOM, 10])
    .clamp(true);
  const parts = bands
    .filter((band) => band.highHz > lowHz && band.lowHz < highHz)
    .map((band) => {
      const [from, to] = [x(Math.max(band.lowHz, lowHz)), x(Math.min(band.highHz, highHz))];
      return `<rect x="${from}" y="10" width="${to - from}" height="${HEIGHT - BOTTOM - 10}" fill="#e6ede6"/><text x="${(from + to) / 2}" y="19" font-size="7" text-anchor="middle" fill="#555555">${escape(band.name)}</text>`;
    });
  for (const tick of [1, 1.5, 2, 3, 5, 10])
    parts.push(
      `<line x1="${LEFT}" x2="${WIDTH - 8}" y1="${y(tick)}" y2="${y(tick)}" stroke="#cccccc" stroke-width="0.5"/><text x="${LEFT - 5}" y="${y(tick) + 3}" font-size="8" text-anchor="end">${tick}</text>`,
    );
  for (const tick of x.ticks(7))
    parts.push(
      `<text x="${x(tick)}" y="${HEIGHT - 8}" font-size="8" text-anchor="middle">${Number((tick / 1e6).toPrecision(6))}</text>`,
    );
  sweeps.forEach(({ sweep }, look) => {
    const swr = Float64Array.from(sweep.freqHz, (_, i) => swrOf(Math.hypot(sweep.re[i], sweep.im[i])) ?? 1e3);
    const path = line<number>(
      (i) => x(sweep.freqHz[i]),
      (i) => y(swr[i]),
    )(decimate(swr, 0, swr.length, 240));
    parts.push(
      `<path d="${path ?? ''}" fill="none" stroke="#5d2b4e" stroke-width="1.4" ${DASHES[look % 4] ? `stroke-dasharray="${DASHES[look % 4]}"` : ''}/>`,
    );
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">${parts.join('')}<text x="${LEFT}" y="8" font-size="8">SWR</text><text x="${WIDTH - 8}" y="${HEIGHT - 8}" font-size="8" text-anchor="end">MHz</text></svg>`;
}
