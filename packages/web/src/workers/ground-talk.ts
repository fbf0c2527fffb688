import type { GroundNeed, KeptCells } from '@velvet-reed/core/solver';

/** What workers say to each other of the ground: what one is computing, or what one has computed. */
export type GroundWord = { readonly need: GroundNeed | undefined } | { readonly cells: readonly KeptCells[] };

interface Surroundings {
  /** Of this worker among those of its page, from 1. */
  readonly number: number;
  /** Says something to all others. */
  readonly say: (word: GroundWord) => void;
  /** Whether this worker has no job of its own. */
  readonly idle: () => boolean;
  /** Cells computed here since they were last told. */
  readonly fresh: () => readonly KeptCells[];
  /** Lets messages in. */
  readonly breathe: () => Promise<void>;
  readonly compute: (need: GroundNeed, index: number) => void;
  readonly takeIn: (cells: KeptCells) => void;
  /** Writes what was computed here down, for the next visit. */
  readonly keep: () => void;
}

interface Talk {
  /** Says what is going to be computed, or nothing any more; a worker without a job begins at its end. */
  readonly ask: (need: GroundNeed | undefined) => void;
  /** Tells the others what was computed. */
  readonly tell: () => void;
  /** Another worker said something. */
  readonly hear: (word: GroundWord) => void;
}

/**
 * Workers compute tables of one ground together: the one that asks from the first frequency on, one without a job from the last, and each takes in what
 * the other tells. What is computed in any job is told as well: of two antennas over one ground the second finds it.
 */
export function talkOfGround({ number, say, idle, fresh, breathe, compute, takeIn, keep }: Surroundings): Talk {
  let asked: GroundNeed | undefined;
  let helping = false;
  const tell = (): void => {
    const cells = fresh();
    if (cells.length > 0) say({ cells });
  };
  async function help(): Promise<void> {
    helping = true;
    const done = new Set<number>();
    while (asked && idle()) {
      // the first is being computed by the one that asks; of several that help each has another one before it
      const { freqsHz } = asked;
      const open = freqsHz.slice(1).filter((freqHz) => !done.has(freqHz));
      const freqHz = open.at(-number) ?? open.at(0);
      if (freqHz === undefined) break;
      const index = freqsHz.indexOf(freqHz);
      done.add(freqHz);
      compute(asked, index);
      tell();
      await breathe();
    }
    helping = false;
    if (done.size > 0) keep();
  }
  const hear = (word: GroundWord): void => {
    if ('cells' in word) return word.cells.forEach(takeIn);
    asked = word.need;
    if (!helping) void help();
  };
  return { ask: (need) => say({ need }), tell, hear };
}
