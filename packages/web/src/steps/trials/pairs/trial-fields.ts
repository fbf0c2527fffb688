import type { StationData } from '../../../data/station';
import type { FieldSpec } from '../../../ui/record-form';

export const trialFields = (data: StationData): readonly FieldSpec[] => {
  const options = data.antennas.map((antenna) => ({ value: String(antenna.id), label: antenna.name }));
  return [
    { name: 'name', label: 'Name', kind: 'text' },
    { name: 'antennaAId', label: 'Antenna A (the old one)', kind: 'choice', options, numeric: true },
    { name: 'antennaBId', label: 'Antenna B (the new one)', kind: 'choice', options, numeric: true },
    { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'worthDb', label: 'Difference worth proving', kind: 'quantity', dimension: 'gain' },
    { name: 'conditions', label: 'Conditions', kind: 'text', hint: 'time of day, weather, what was switched on' },
  ];
};
