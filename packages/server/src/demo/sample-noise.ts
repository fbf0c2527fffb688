/** Small repeatable noise in place of a measurement's, uniform in ±1 (Park & Miller's generator, CACM 31 (1988) 1192). */
export function repeatableNoise(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return (2 * state) / 2147483647 - 1;
  };
}
