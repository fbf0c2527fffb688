import { CABLE_CLASSES } from '../../line/coax';
import { decibels, plain, type StageKindSpec } from '../stage-kind';

/** The listener's own cable, by its loss at two frequencies. */
export const OWN_CABLE = 'own';

/** Cables to choose from; the listener's own is entered with the station. */
export const CABLE_CHOICES = [
  ...CABLE_CLASSES.map((cable) => ({ value: cable.id, label: cable.name })),
  { value: OWN_CABLE, label: 'my own, by its loss' },
];

/**
 * Coax: by its class, or by the loss of the whole run where that is known; away from the known frequency the loss goes with the root of frequency (skin
 * effect alone, as k₂ = 0 in the loss model; a real cable loses a little more far above, less far below).
 */
export const line: StageKindSpec<'line'> = {
  id: 'line',
  article: 'a line',
  name: 'Coax',
  stays: true,
  alongPlan: true,
  fields: [
    {
      ...{ id: 'cableId', label: 'Cable', start: 'pe5', shared: true },
      options: CABLE_CHOICES,
    },
    { id: 'lengthM', label: 'Length', dimension: 'length', bareUnit: 'm', start: '15 m', shared: true },
    {
      ...plain('loopOhmPerM', 'Loop resistance, Ω per m', 0, 10, ''),
      ...{ optional: true, hint: 'centre and shield together; empty: usual for the class' },
    },
    {
      ...decibels('knownLossDb', 'Loss of the whole run, if it is known', '', 0, 200),
      ...{ optional: true, hint: 'measured or by its data sheet; instead of the cable above' },
    },
    {
      ...{ id: 'knownAtHz', label: 'Known at', dimension: 'frequency', bareUnit: 'MHz', least: 1e3, most: 3e11 },
      ...{ start: '', optional: true, hint: 'elsewhere it goes with the root of frequency, as skin effect does' },
    },
  ],
  // a loss without its frequency, or the other way round, says nothing
  faults(figures) {
    if ('knownLossDb' in figures === 'knownAtHz' in figures) return [];
    return 'knownLossDb' in figures
      ? [{ id: 'knownAtHz', message: 'Enter the frequency at which this loss is known.' }]
      : [{ id: 'knownLossDb', message: 'Enter the loss at this frequency, or empty both.' }];
  },
  stage({ name, cable, lengthM, figures }) {
    if (!('knownLossDb' in figures && 'knownAtHz' in figures)) return { kind: 'line', name, cable, lengthM };
    const { knownLossDb, knownAtHz } = figures;
    const runM = lengthM > 0 ? lengthM : 1;
    return {
      ...{ kind: 'line', name, lengthM: runM },
      cable: { k1: (knownLossDb * 100) / (runM * Math.sqrt(knownAtHz / 1e6)), k2: 0 },
    };
  },
  dc: ({ name, lengthM, cableId, figures }) => {
    const usual = CABLE_CLASSES.find(({ id }) => id === cableId)?.loopOhmPerM;
    return figures.loopOhmPerM === undefined && usual !== undefined
      ? { dc: 'line', name, lengthM, ohmPerM: usual, assumed: true }
      : { dc: 'line', name, lengthM, ohmPerM: figures.loopOhmPerM };
  },
};
