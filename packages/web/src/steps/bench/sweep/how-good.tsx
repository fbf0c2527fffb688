import { mismatchLossDb, gammaOfSwr } from '@velvet-reed/core/line';
import { effectiveNoiseFigureDb, reaches } from '@velvet-reed/core/path';
import { minimumEfficiency } from '@velvet-reed/core/site';
import { fixed, frequencyText, powerRatio, inDb } from '@velvet-reed/core/units';
import { outsideNoise } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';

/** SNR that may be lost, dB. */
const LIMIT_DB = 1;
const HIGHEST_SWR = 100;

/** The highest SWR whose mismatch takes no more than so many dB; bisection. */
function swrFor(lossDb: number): number {
  let [low, high] = [1, HIGHEST_SWR];
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if ((mismatchLossDb(gammaOfSwr(middle)) ?? Infinity) > lossDb) high = middle;
    else low = middle;
  }
  return low;
}

/** How good the SWR must be for receiving: not better than the outside noise asks. */
export function HowGood({ data, freqHz }: { readonly data: StationData; readonly freqHz: number }) {
  const receiver = data.receivers.find((one) => reaches(one, freqHz));
  if (!receiver) return null;
  const noiseDb = effectiveNoiseFigureDb(receiver);
  const outside = outsideNoise(data, freqHz);
  const { minEfficiencyDb, snrLossAtFullEfficiencyDb } = minimumEfficiency(outside.faDb, powerRatio(noiseDb), LIMIT_DB);
  const allowed = minEfficiencyDb === null ? undefined : swrFor(-minEfficiencyDb);
  return (
    <Section
      title="How good must the SWR be?"
      hint={`for receiving at ${frequencyText(freqHz)}, with ${receiver.name}`}
    >
      {allowed === undefined ? (
        <p className="max-w-prose">
          Even a lossless match costs {fixed(snrLossAtFullEfficiencyDb, 1)} dB of SNR here (model): the receiver
          decides. Every bit of match counts, and an amplifier at the antenna more.
        </p>
      ) : (
        <p className="max-w-prose">
          An SWR of{' '}
          <Value
            strong
            shown={{
              digits: allowed >= HIGHEST_SWR * 0.99 ? `${HIGHEST_SWR} and more` : fixed(allowed, allowed < 10 ? 1 : 0),
              unit: '',
            }}
            provenance={{
              origin: 'model',
              formula: 'mismatch that, with the receiver’s noise, costs 1 dB of SNR against the outside noise',
              inputs: [
                ['outside noise', `${fixed(outside.faDb, 1)} dB over kT₀`],
                ['receiver', `${fixed(noiseDb, 1)} dB noise figure`],
              ],
              source: 'ITU-R P.372 or your own floor; Friis 1944; loss of the line comes on top',
            }}
          />{' '}
          still hears: it costs{' '}
          <Value
            shown={inDb(LIMIT_DB, 0)}
            provenance={{ origin: 'assumed', formula: 'SNR that may be lost', source: 'chosen' }}
          />{' '}
          of SNR, because the noise from outside is stronger than that of the receiver. For transmitting other rules
          hold.
        </p>
      )}
    </Section>
  );
}
