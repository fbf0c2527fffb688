import { decibels, type StageKindSpec } from '../stage-kind';

export const pad: StageKindSpec<'pad'> = {
  id: 'pad',
  article: 'a pad',
  name: '10 dB pad',
  fields: [decibels('lossDb', 'Loss', '10 dB')],
  stage: ({ name, lossDb }) => ({ kind: 'pad', name, lossDb }),
  dc: ({ name, lossDb }) => (lossDb === 0 ? { dc: 'through', name } : { dc: 'pad', name, lossDb }),
};
