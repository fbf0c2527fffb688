import { ANTENNA_KINDS, antennaKind } from '@velvet-reed/core/antenna';

/**
 * A kind of antenna that nobody builds: the half-wave dipole under another name. Importing this puts it on the list of kinds, which is all that a new kind
 * needs; what reads the list later finds it.
 */
export const MADE_UP_KIND: ReturnType<typeof antennaKind> = {
  ...antennaKind('half-wave-dipole'),
  ...{ id: 'made-up-wire', name: 'Made-up wire', summary: 'a dipole under another name, for a test' },
  hearsAlong: true,
  burden: { price: 7, hours: 1, sight: 1 },
};
if (Array.isArray(ANTENNA_KINDS)) ANTENNA_KINDS.push(MADE_UP_KIND);
