import type { BenchVerdict, NextCut } from '@velvet-reed/core/sweep';
import { frequencyText, showFrequency, showLength } from '@velvet-reed/core/units';
import { nextWords, type NextStep, type Piece, type Said } from '../said';
import { cutProvenance, dipProvenance } from './loaded-sweep';

/** The room that holds the trim diary. */
const TRIM = 'bench/trim';

/** What a verdict of the Bench is said with. */
interface BenchSaid {
  readonly verdict: BenchVerdict;
  /** The sweep that counts; undefined: none was read. */
  readonly sweep?: { readonly name: string; readonly points: number };
  readonly cut?: NextCut;
  readonly targetHz?: number;
  readonly trimName: string;
}

function sentencePieces({ verdict, sweep, targetHz }: BenchSaid): readonly Piece[] {
  const { state, dipHz, offHz, sentence } = verdict;
  if (!sweep || dipHz === undefined) return [sentence];
  const dip: Piece = { shown: showFrequency(dipHz, 4), provenance: dipProvenance(sweep) };
  if (state === 'on target') return ['The dip sits at ', dip, ', on target.'];
  if (offHz === undefined || targetHz === undefined) return ['The dip sits at ', dip, '.'];
  const off: Piece = {
    shown: showFrequency(Math.abs(offHz), 3),
    provenance: {
      origin: 'measured',
      formula: 'target − the dip nearest to it',
      inputs: [['target', frequencyText(targetHz)]],
      source: 'your sweep and the draft',
    },
  };
  return ['The dip sits at ', dip, ', ', off, sentence.slice(sentence.indexOf(' too '))];
}

function nextStep({ verdict: { state, next, cutM }, cut, trimName }: BenchSaid): NextStep {
  if (state === 'cut' && cut && cutM !== undefined)
    return {
      pieces: [
        'Next: cut ',
        { shown: showLength(cutM, 2), provenance: cutProvenance(cut) },
        ` off ${trimName}, then sweep again.`,
      ],
    };
  if (state === 'too short' || state === 'stop') return { pieces: [next] };
  return { pieces: [nextWords(next)], ...(state === 'length wanted' ? { room: TRIM } : {}) };
}

/** The Bench's verdict as the core states it; its deciding numbers tell their origin. */
export const saidBench = (bench: BenchSaid): Said => ({
  pieces: sentencePieces(bench),
  ...(bench.verdict.state === 'fault' ? { tone: 'caution' } : {}),
  next: nextStep(bench),
});
