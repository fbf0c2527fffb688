/** A label that wants a place on a lane. */
export interface LaneLabel {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  /** Higher is placed first; what collides is dropped. */
  readonly priority: number;
}

/** Average width of a letter on the lanes, px. */
const LETTER_PX = 6.6;

/** Which labels can stand without touching one another, the ends, or what is drawn at `drawn` (px); positions are centres. */
export function placeLabels(
  labels: readonly LaneLabel[],
  widthPx: number,
  drawn: readonly number[] = [],
): readonly LaneLabel[] {
  const placed: { label: LaneLabel; from: number; to: number }[] = [];
  for (const label of [...labels].sort((a, b) => b.priority - a.priority)) {
    const half = (label.text.length * LETTER_PX) / 2;
    const x = Math.min(Math.max(label.x, half), widthPx - half);
    if (label.x < 0 || label.x > widthPx) continue;
    // its own mark stands under the label or right beside it
    const crossed = drawn.some((mark) => mark > x - half + 2 && mark < x + half - 2);
    if (!crossed && placed.every((other) => x + half + 6 < other.from || x - half - 6 > other.to))
      placed.push({ label: { ...label, x }, from: x - half, to: x + half });
  }
  return placed.map(({ label }) => label);
}
