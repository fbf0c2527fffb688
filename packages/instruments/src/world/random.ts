/** Park & Miller's generator, CACM 31 (1988) 1192: the same seed gives the same readings. */
const nextSeed = (seed: number): number => (seed * 48271) % 2147483647;

/** A stream of random numbers from a seed (1 to 2³¹ − 2). */
export interface Random {
  /** In (0, 1). */
  readonly uniform: () => number;
  /** Standard normal, by Box & Muller. */
  readonly normal: () => number;
  readonly between: (low: number, high: number) => number;
  readonly pick: <T>(list: readonly T[]) => T;
}

/** The generator's first numbers follow its seed closely; these are thrown away. */
const DISCARDED = 5;

export function randomFrom(seed: number): Random {
  let state = (Math.abs(Math.trunc(seed)) % 2147483646) + 1;
  for (let i = 0; i < DISCARDED; i += 1) state = nextSeed(state);
  const uniform = (): number => {
    state = nextSeed(state);
    return state / 2147483647;
  };
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform()),
    between: (low, high) => low + (high - low) * uniform(),
    pick: (list) => list[Math.min(list.length - 1, Math.floor(uniform() * list.length))],
  };
}
