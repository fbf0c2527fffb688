import type { FilterShape } from '../../filter/response';
import { filterStart } from '../../filter/goals';
import { edgesForBand, filterName, namedByShape } from '../../filter/start';
import { choiceOf, decibels, PASSES_DC, type StageKindSpec } from '../stage-kind';

/** Whether DC gets through a shape as it is usually built: series capacitors in a high- or band-pass, a shunt coil too, stop and short it. */
export const passesDcByShape = (shape: FilterShape): boolean => shape === 'lowpass' || shape === 'bandstop';

/** An ideal prototype with a loss of its own everywhere. */
export const filter: StageKindSpec<'filter'> = {
  id: 'filter',
  article: 'a filter',
  name: 'Low-pass 30 MHz',
  fields: [
    {
      ...{ id: 'shape', label: 'Passes', start: 'lowpass', shared: true },
      options: [
        { value: 'lowpass', label: 'low (below the upper edge)' },
        { value: 'highpass', label: 'high (above the lower edge)' },
        { value: 'bandpass', label: 'a band' },
        { value: 'bandstop', label: 'all but a band' },
      ],
    },
    {
      ...{ id: 'family', label: 'Family', start: 'chebyshev', shared: true },
      options: [
        { value: 'chebyshev', label: 'Chebyshev (edge: ripple)' },
        { value: 'butterworth', label: 'Butterworth (edge: 3 dB)' },
      ],
    },
    {
      ...{ id: 'order', label: 'Order', dimension: 'plain', start: '5', shared: true },
      hint: 'number of poles, 1 to 15',
    },
    decibels('rippleDb', 'Ripple', '0.1 dB'),
    {
      ...{ id: 'edgeLowHz', label: 'Lower edge', dimension: 'frequency', bareUnit: 'MHz', start: '1.8 MHz' },
      shared: true,
    },
    {
      ...{ id: 'edgeHighHz', label: 'Upper edge', dimension: 'frequency', bareUnit: 'MHz', start: '30 MHz' },
      shared: true,
    },
    decibels('lossDb', 'Insertion loss', '0.3 dB'),
    {
      ...PASSES_DC,
      start: 'by shape',
      options: [{ value: 'by shape', label: 'as its shape suggests' }, ...PASSES_DC.options],
    },
  ],
  startFor(wanted, others, carriers) {
    const { shape, edgesHz } = filterStart(wanted, others, carriers);
    const [low, high = low] = edgesHz;
    // an edge that the shape does not have stays beside the band for the day it gets another shape
    const spare = edgesForBand(wanted.lowHz, wanted.highHz);
    const edgeLowHz = shape === 'lowpass' ? spare.edgeLowHz : low;
    const edgeHighHz = shape === 'highpass' ? spare.edgeHighHz : high;
    return { shape, edgeLowHz, edgeHighHz, name: filterName(shape, edgeLowHz, edgeHighHz) };
  },
  nameOf: ({ name, shape, edgeLowHz, edgeHighHz }) =>
    namedByShape(name) ? filterName(shape, edgeLowHz, edgeHighHz) : name,
  stage: ({ name, shape, family, order, rippleDb, edgeLowHz, edgeHighHz, lossDb }) => ({
    ...{ kind: 'filter', name },
    filter: { shape, family, order, rippleDb, edgeLowHz, edgeHighHz, insertionLossDb: lossDb },
  }),
  dc(values) {
    const { name, shape } = values;
    const passes = choiceOf(filter, values, 'passesDc');
    const byShape = passesDcByShape(shape);
    return passes === 'passes' || (passes === 'by shape' && byShape)
      ? { dc: 'through', name }
      : { dc: 'blocked', name };
  },
};
