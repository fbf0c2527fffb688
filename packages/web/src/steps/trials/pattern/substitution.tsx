import { checkedGain, twoRay } from '@velvet-reed/core/bearing';
import { fixed } from '@velvet-reed/core/units';
import { QuickAnswer } from '../../../ui/quick-answer';

/** Figures that only the comparison with free space takes. */
const OPTIONAL = { start: '', optional: true } as const;

/** A gain by exchanging the antenna for one that is known, held against free space and the model; and what the ground does to it. */
export function Substitution() {
  return (
    <>
      <QuickAnswer
        title="Gain by substitution"
        hint="the same place, the same sender, one antenna after the other"
        specs={[
          { name: 'reference', label: 'Gain of the reference', dimension: 'gain', start: '2.15 dBi' },
          { name: 'levelRef', label: 'Level with the reference', dimension: 'level', bareUnit: 'dBm', start: '' },
          { name: 'levelTest', label: 'Level with the antenna', dimension: 'level', bareUnit: 'dBm', start: '' },
          { name: 'swrRef', label: 'SWR of the reference', dimension: 'plain', start: '1' },
          { name: 'swrTest', label: 'SWR of the antenna', dimension: 'plain', start: '1' },
          { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', ...OPTIONAL },
          { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', ...OPTIONAL },
          { name: 'sent', label: 'Power sent', dimension: 'level', bareUnit: 'dBm', ...OPTIONAL },
          { name: 'sender', label: 'Gain of the sender', dimension: 'gain', ...OPTIONAL },
          { name: 'scatter', label: 'Scatter of a level', dimension: 'gain', start: '0.5 dB' },
          { name: 'refError', label: 'Error of the reference', dimension: 'gain', start: '0.3 dB' },
          { name: 'room', label: 'Reflections', dimension: 'gain', start: '1 dB' },
          { name: 'model', label: 'Gain by the model', dimension: 'gain', start: '', optional: true },
        ]}
        answer={(value, given) => {
          const found = checkedGain({
            ...{ referenceDbi: value('reference'), referenceDbm: value('levelRef'), testDbm: value('levelTest') },
            ...{ referenceSwr: value('swrRef'), testSwr: value('swrTest'), freqHz: given('freq') },
            ...{ distanceM: given('distance'), sentDbm: given('sent'), senderDbi: given('sender') },
            ...{ scatterDb: value('scatter'), referenceErrorDb: value('refError'), reflectionDb: value('room') },
            modelDbi: given('model'),
          });
          return (
            <>
              <p>
                Gain {fixed(found.gainDbi, 2)} ± {(2 * found.sigmaDb).toFixed(1)} dBi (95 %, measured),{' '}
                {fixed(found.gainDbd, 1)} dB over a half-wave dipole; with its mismatch {fixed(found.realisedDbi, 2)}{' '}
                dBi.
              </p>
              {found.modelOffDb !== null && (
                <p className={found.agrees ? '' : 'text-caution'}>
                  {fixed(Math.abs(found.modelOffDb), 1)} dB {found.modelOffDb >= 0 ? 'over' : 'under'} the model:{' '}
                  {found.agrees === null
                    ? 'that proves nothing while the reference itself is so far off.'
                    : found.agrees
                      ? 'agrees within the scatter.'
                      : 'does not agree; look for reflections, the feed line, or a wrong reference.'}
                </p>
              )}
              {found.range && (
                <p className={found.range.sound ? 'text-sm text-dim' : 'text-caution'}>
                  Free space loses {found.range.freeSpaceDb.toFixed(1)} dB here: the reference should show{' '}
                  {fixed(found.range.expectedDbm, 1)} dBm and shows {fixed(Math.abs(found.range.offDb), 1)} dB{' '}
                  {found.range.offDb >= 0 ? 'more' : 'less'}.
                  {found.range.sound
                    ? ''
                    : ' No error of these figures explains that: look at the power sent, the plugs, the distance and the polarisation before any gain is believed.'}
                </p>
              )}
              <p className="text-sm text-dim">
                Error, 1 σ: {found.parts.map(({ name, db }) => `${name} ${db.toFixed(1)}`).join(', ')} dB.
              </p>
            </>
          );
        }}
      />
      <QuickAnswer
        title="What the ground adds"
        hint="a direct wave and one reflected: raise the antenna step by step and take the mean of a maximum and a minimum"
        specs={[
          { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '868 MHz' },
          { name: 'h1', label: 'Height of the sender', dimension: 'length', bareUnit: 'm', start: '2 m' },
          { name: 'h2', label: 'Height of the antenna', dimension: 'length', bareUnit: 'm', start: '3.5 m' },
          { name: 'd', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '25 m' },
          { name: 'r', label: 'Reflection, −1 to 1', dimension: 'plain', start: '-0.5' },
        ]}
        answer={(value) => {
          const found = twoRay({
            ...{ freqHz: value('freq'), heightM: value('h1'), otherHeightM: value('h2') },
            ...{ distanceM: value('d'), reflection: value('r') },
          });
          return (
            <p>
              {fixed(Math.abs(found.levelDb), 1)} dB {found.levelDb >= 0 ? 'over' : 'under'} free space; from one
              maximum to the next {found.heightStepM.toFixed(2)} m of height (model).
            </p>
          );
        }}
      />
    </>
  );
}
