import type { Candidate } from '@velvet-reed/core/choose';
import { frequencyText } from '@velvet-reed/core/units';

/** An antenna by its name, and what it is cut for if it is one of a kind. */
export const candidateTitle = ({ spec }: Candidate): string =>
  spec.source === 'kind' ? `${spec.name}, ${frequencyText(spec.design.freqHz, 3)}` : spec.name;
