// Verdicts against a referee over made-up stations and their edits; intervals of pattern figures and of fixes against what is true.
import { type BearingLine, insideRegion95, judgedFix, measuredPattern } from '../packages/core/src/bearing';
import { FIX_CASES } from '../packages/core/src/bearing/fix-cases';
import { chanceOf } from '../packages/core/src/recording';
import { walkWorld } from '@velvet-reed/station/guard/worlds';
import { printLine } from './print';

const WORLDS = 2000;
const EDITS = 20;
const TURNS = 100;
const FIXES = 2000;
/** Half-power width of a beam whose field is cos²: 2 arccos 2^(−1/4). */
const BEAM_DEG = 65.53;

function stations(): void {
  const faults: string[] = [];
  for (let seed = 1; seed <= WORLDS; seed += 1) faults.push(...walkWorld(seed, EDITS));
  for (const fault of faults.slice(0, 10)) console.log(`    ${fault}`);
  printLine(
    `${WORLDS} stations, ${EDITS} edits each: better than the referee`,
    String(faults.length),
    '0',
    faults.length === 0,
  );
}

function patterns(): void {
  for (const stepDeg of [1, 5, 10])
    for (const scatterDb of [0.5, 1, 2]) {
      let [held, told, lobes] = [0, 0, 0];
      const wide: number[] = [];
      for (let seed = 1; seed <= TURNS; seed += 1) {
        const { normal, uniform } = chanceOf(1000 * stepDeg + seed);
        const turned = 360 * uniform();
        const found = measuredPattern(
          Array.from({ length: 360 / stepDeg }, (_, i) => {
            const cos = Math.max(0, Math.cos(((i * stepDeg - turned) * Math.PI) / 180));
            return { angleDeg: i * stepDeg, level: 10 * Math.log10(cos ** 4 + 10 ** -2.5) + scatterDb * normal() };
          }),
          'dB',
        );
        if (found.sideLobeDb) lobes += 1;
        if (!found.widthDeg) continue;
        told += 1;
        wide.push(found.widthDeg.high - found.widthDeg.low);
        if (found.widthDeg.low <= BEAM_DEG && BEAM_DEG <= found.widthDeg.high) held += 1;
      }
      const share = (100 * held) / Math.max(1, told);
      const median = wide.sort((a, b) => a - b)[wide.length >> 1] ?? 0;
      printLine(
        `width of ${TURNS} turns, ${stepDeg}° steps, ${scatterDb} dB: ${told} told, ${median.toFixed(1)}° wide, ${lobes} lobes`,
        `${share.toFixed(0)} %`,
        '93 to 97 %',
        share >= 93 && share <= 97,
      );
    }
}

function fixes(): void {
  for (const [name, places, sigmaDeg, , at] of FIX_CASES) {
    let [held, told] = [0, 0];
    for (let seed = 1; seed <= FIXES; seed += 1) {
      const { normal } = chanceOf(seed + 90_000);
      const lines = places.map(([eastKm, northKm]): BearingLine => {
        const bearing = (Math.atan2(at[0] - eastKm, at[1] - northKm) * 180) / Math.PI;
        return { eastKm, northKm, sigmaDeg, bearingDeg: (bearing + sigmaDeg * normal() + 720) % 360 };
      });
      try {
        const { fix, lines: used } = judgedFix(lines, true);
        told += 1;
        if (insideRegion95(used, true, fix, at)) held += 1;
      } catch {
        // parallel lines meet nowhere: nothing is told
      }
    }
    const share = (100 * held) / Math.max(1, told);
    printLine(
      `region of ${FIXES} fixes: ${name}, ${told} told`,
      `${share.toFixed(1)} %`,
      '93 to 97 %',
      share >= 93 && share <= 97,
    );
  }
}

export function evidenceBench(): Promise<void> {
  stations();
  patterns();
  fixes();
  return Promise.resolve();
}
