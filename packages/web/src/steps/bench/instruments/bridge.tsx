import { directivityBounds, mainLineLossDb } from '@velvet-reed/core/line';
import { fixed } from '@velvet-reed/core/units';
import { QuickAnswer } from '../../../ui/quick-answer';

/** What a return loss may be, read through a bridge that leaks. */
export const Bridge = () => (
  <QuickAnswer
    title="Directivity of a bridge"
    hint="its own leak adds to the reflection with unknown phase"
    specs={[
      { name: 'loss', label: 'Return loss', dimension: 'gain', start: '18 dB' },
      { name: 'directivity', label: 'Directivity', dimension: 'gain', start: '30 dB' },
      { name: 'coupling', label: 'Coupling', dimension: 'gain', start: '20 dB', optional: true },
    ]}
    answer={(value, given) => {
      const { leastDb, mostDb } = directivityBounds(value('loss'), value('directivity'));
      const coupling = given('coupling');
      return (
        <p>
          It may read {fixed(leastDb, 1)} to {mostDb === null ? 'any number of' : fixed(mostDb, 1)} dB
          {coupling !== null && `; the main line loses ${mainLineLossDb(coupling).toFixed(3)} dB`} (model).
        </p>
      );
    }}
  />
);
