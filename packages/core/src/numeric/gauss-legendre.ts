/** Nodes and weights of Gauss-Legendre quadrature on [−1, 1], by Newton on the Legendre polynomial. */
export function gaussLegendre(n: number): { readonly nodes: Float64Array; readonly weights: Float64Array } {
  const nodes = new Float64Array(n);
  const weights = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let round = 0; round < 100; round += 1) {
      let previous = 1;
      let value = x;
      for (let k = 2; k <= n; k += 1) [previous, value] = [value, ((2 * k - 1) * x * value - (k - 1) * previous) / k];
      slope = (n * (x * value - previous)) / (x * x - 1);
      const step = value / slope;
      x -= step;
      if (Math.abs(step) < 1e-15) break;
    }
    nodes[i] = x;
    weights[i] = 2 / ((1 - x * x) * slope * slope);
  }
  return { nodes, weights };
}
