import type { InstrumentCard } from '@velvet-reed/contract';

const KIND_WORDS: Readonly<Record<InstrumentCard['kind'], string>> = {
  analyser: 'analyser',
  receiver: 'receiver',
  turntable: 'turntable',
  'power-meter': 'power meter',
  'lcr-meter': 'LCR meter',
  'antenna-switch': 'antenna switch',
};

/** An instrument as lists name it. */
export const instrumentName = ({ kind, address, standIn }: InstrumentCard): string =>
  standIn ? `Stand-in ${KIND_WORDS[kind]} (made up, for practice)` : `${KIND_WORDS[kind]} at ${address}`;
