import type { ResourceName } from '@velvet-reed/contract';

/** What a record is called in a sentence. */
export const LABELS: Readonly<Record<ResourceName, string>> = {
  targets: 'target',
  bandEdits: 'band',
  emitters: 'transmitter',
  receivers: 'receiver',
  antennas: 'antenna',
  revisions: 'revision',
  sweeps: 'sweep',
  calibrations: 'calibration',
  coilTests: 'coil test',
  spectra: 'spectrum',
  trimSteps: 'trim step',
  trials: 'trial',
  readings: 'reading',
  noiseChecks: 'noise reading',
  paths: 'path',
  pathStages: 'stage',
  guardPlans: 'guard plan',
  guardInputs: 'receiver input',
  entries: 'entry',
  attachments: 'file',
  plotFeatures: 'feature of the plan',
  satellites: 'satellite',
  noiseFloors: 'noise floor',
  boughtAntennas: 'antenna to buy',
  surveyReadings: 'survey reading',
  floorReadings: 'floor reading',
  parts: 'part',
  deviceSwitchings: 'device switching',
};

const PLURALS: Readonly<Partial<Record<ResourceName, string>>> = {
  entries: 'entries',
  spectra: 'spectra',
  plotFeatures: 'features of the plan',
  boughtAntennas: 'antennas to buy',
};

/** "1 sweep", "3 sweeps". */
export const countText = (resource: ResourceName, count: number): string =>
  count === 1 ? `1 ${LABELS[resource]}` : `${count} ${PLURALS[resource] ?? `${LABELS[resource]}s`}`;

/** Which fields point at which table; they must point inside the same station. */
export const REFERENCES: Readonly<Record<string, ResourceName>> = {
  targetId: 'targets',
  antennaId: 'antennas',
  antennaAId: 'antennas',
  antennaBId: 'antennas',
  receiverId: 'receivers',
  attachmentId: 'attachments',
  photoId: 'attachments',
  trialId: 'trials',
  pathId: 'paths',
  guardPlanId: 'guardPlans',
  plotFeatureId: 'plotFeatures',
  partId: 'parts',
};

/** References that may be empty, and yet the record means nothing without what they point at: it goes along. */
export const MEANT_BY: Readonly<Partial<Record<ResourceName, readonly string[]>>> = { pathStages: ['partId'] };

/** Files that belong to one record and go with it. */
export const OWN_FILES: Readonly<Partial<Record<ResourceName, string>>> = {
  sweeps: 'attachmentId',
  spectra: 'attachmentId',
  plotFeatures: 'attachmentId',
  trimSteps: 'photoId',
};

/** What was measured, and where it came from: nobody changes it afterwards. */
export const EVIDENCE: Readonly<Partial<Record<ResourceName, readonly string[]>>> = {
  attachments: ['name', 'size', 'sha256'],
  sweeps: ['points', 'startHz', 'stopHz', 'referenceOhm', 'phaseKnown', 'correction', 'attachmentId'],
  calibrations: ['points', 'startHz', 'stopHz', 'madeMs'],
  spectra: ['points', 'startHz', 'stopHz', 'atMs', 'attachmentId'],
};
