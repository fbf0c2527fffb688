import { gaussianClipping, reciprocalMixing } from '@velvet-reed/core/path';
import { fixed } from '@velvet-reed/core/units';
import { QuickAnswer } from '../../../ui/quick-answer';

/** What a strong carrier brings through the oscillator, and how often many of them clip the converter. */
export function StrongSignals() {
  return (
    <>
      <QuickAnswer
        title="A strong carrier beside it"
        hint="the receiver’s own oscillator spreads it over the neighbours (reciprocal mixing)"
        specs={[
          { name: 'level', label: 'Carrier', dimension: 'level', bareUnit: 'dBm', start: '-20 dBm' },
          { name: 'noise', label: 'Phase noise there, dBc/Hz', dimension: 'plain', start: '-125' },
          { name: 'bandwidth', label: 'Bandwidth', dimension: 'frequency', bareUnit: 'Hz', start: '2400 Hz' },
          { name: 'floor', label: 'Floor without it', dimension: 'level', bareUnit: 'dBm', start: '-124 dBm' },
        ]}
        answer={(value) => {
          const found = reciprocalMixing({
            ...{ interfererDbm: value('level'), noiseDbcPerHz: value('noise') },
            ...{ bandwidthHz: value('bandwidth'), mdsDbm: value('floor') },
          });
          return (
            <p>
              It lifts the floor by {fixed(found.riseDb, 1)} dB, to {fixed(found.floorDbm, 1)} dBm; a carrier of{' '}
              {fixed(found.interfererFor3Dbm, 1)} dBm would double it (model).
            </p>
          );
        }}
      />
      <QuickAnswer
        title="Many signals in one converter"
        hint="their sum is like noise, and its peaks clip"
        specs={[
          { name: 'power', label: 'All together', dimension: 'level', bareUnit: 'dBm', start: '-9 dBm' },
          { name: 'full', label: 'Full scale, of a sine', dimension: 'level', bareUnit: 'dBm', start: '-1 dBm' },
        ]}
        answer={(value) => {
          const { crestDb, clippedShare } = gaussianClipping(value('power'), value('full'));
          return (
            <p>
              Peaks have {fixed(crestDb, 1)} dB of room over the mean;{' '}
              {clippedShare < 1e-9
                ? 'practically no sample'
                : `${(100 * clippedShare).toPrecision(2)} % of the samples`}{' '}
              clip{clippedShare < 1e-9 ? 's' : ''} (model).
            </p>
          );
        }}
      />
    </>
  );
}
