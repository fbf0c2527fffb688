import type { StationData } from '@velvet-reed/station/record';
import type { FieldSpec } from '../../../ui/record-form';

export const trialFields = (data: StationData): readonly FieldSpec[] => {
  const options = data.antennas.map((antenna) => ({ value: String(antenna.id), label: antenna.name }));
  return [
    { name: 'name', label: 'Name', kind: 'text' },
    { name: 'antennaAId', label: 'Antenna A (the old one)', kind: 'choice', options, numeric: true },
    { name: 'antennaBId', label: 'Antenna B (the new one)', kind: 'choice', options, numeric: true },
    { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'worthDb', label: 'Difference worth proving', kind: 'quantity', dimension: 'gain' },
    {
      ...{
        name: 'plannedPairs',
        label: 'Pairs fixed beforehand',
        kind: 'quantity',
        dimension: 'plain',
        optional: true,
      },
      hint: 'judged once, at their end; empty: you look after every pair, and it is judged so that you may',
    },
    {
      ...{ name: 'primary', label: 'What decides', kind: 'choice' },
      options: [
        { value: 'snr', label: 'SNR: what can be heard' },
        { value: 'level', label: 'level alone' },
        { value: 'noise', label: 'noise alone' },
      ],
    },
    {
      ...{ name: 'fadingS', label: 'Fading time', kind: 'quantity', dimension: 'time', bareUnit: 's', optional: true },
      hint: 'pairs closer than this tell little new; empty: not known',
    },
    { name: 'conditions', label: 'Conditions', kind: 'text', hint: 'weather, what was switched on; commas between' },
  ];
};
