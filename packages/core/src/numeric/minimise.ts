import { NotConvergedError } from '../errors';

/**
 * Minimum of a function of a few variables by the simplex of Nelder & Mead, Computer Journal 7 (1965) 308.
 * Deterministic; `start` and `steps` decide the first simplex.
 */
export function minimise(
  f: (x: readonly number[]) => number,
  start: readonly number[],
  steps: readonly number[],
): number[] {
  const n = start.length;
  let simplex = [start, ...steps.map((step, i) => start.map((value, j) => (j === i ? value + step : value)))].map(
    (x) => ({
      x: [...x],
      y: f(x),
    }),
  );
  for (let round = 0; round < 4000; round += 1) {
    simplex = simplex.sort((a, b) => a.y - b.y);
    const best = simplex[0];
    const worst = simplex[n];
    const spread = Math.max(
      ...simplex.map((point) => Math.max(...point.x.map((value, j) => Math.abs(value - best.x[j])))),
    );
    if (Math.abs(worst.y - best.y) < 1e-13 * (1 + Math.abs(best.y)) && spread < 1e-7) return best.x;
    const centre = start.map((_, j) => simplex.slice(0, n).reduce((sum, point) => sum + point.x[j], 0) / n);
    const along = (t: number) => {
      const x = centre.map((value, j) => value + t * (value - worst.x[j]));
      return { x, y: f(x) };
    };
    const reflected = along(1);
    if (reflected.y < best.y) {
      const expanded = along(2);
      simplex[n] = expanded.y < reflected.y ? expanded : reflected;
    } else if (reflected.y < simplex[n - 1].y) simplex[n] = reflected;
    else {
      const contracted = along(reflected.y < worst.y ? 0.5 : -0.5);
      if (contracted.y < Math.min(worst.y, reflected.y)) simplex[n] = contracted;
      else
        simplex = simplex.map((point, i) => {
          if (i === 0) return point;
          const x = point.x.map((value, j) => (value + best.x[j]) / 2);
          return { x, y: f(x) };
        });
    }
  }
  throw new NotConvergedError('The search for the most likely values', simplex[n].y - simplex[0].y);
}
