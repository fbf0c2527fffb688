import { linkRange } from '@velvet-reed/core/site';
import { QuickAnswer } from '../../../ui/quick-answer';

/** How far a transmitter in the air is heard, by its power and by the horizon. */
export const LinkRange = ({ heightM }: { readonly heightM: number }) => (
  <QuickAnswer
    title="Range of a link"
    hint="free space, or the radio horizon: the smaller one counts"
    specs={[
      { name: 'power', label: 'Power', dimension: 'power', bareUnit: 'W', start: '70 W' },
      { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '1090 MHz' },
      { name: 'sent', label: 'Gain there', dimension: 'gain', start: '0 dBi' },
      { name: 'gain', label: 'Gain here', dimension: 'gain', start: '2 dBi' },
      { name: 'loss', label: 'Losses', dimension: 'gain', start: '6 dB' },
      { name: 'needs', label: 'Receiver needs', dimension: 'level', bareUnit: 'dBm', start: '-80 dBm' },
      { name: 'other', label: 'Height there', dimension: 'length', bareUnit: 'm', start: '11 km' },
      {
        name: 'own',
        label: 'Height here',
        dimension: 'length',
        bareUnit: 'm',
        start: `${Number(heightM.toFixed(1))} m`,
      },
    ]}
    answer={(value) => {
      const found = linkRange({
        ...{
          powerW: value('power'),
          freqHz: value('freq'),
          transmitGainDbi: value('sent'),
          receiveGainDbi: value('gain'),
        },
        ...{
          lossDb: value('loss'),
          sensitivityDbm: value('needs'),
          otherHeightM: value('other'),
          heightM: value('own'),
        },
      });
      return (
        <p>
          {found.rangeKm.toFixed(0)} km, ended by {found.limit === 'link' ? 'the power' : 'the horizon'}: the power
          would reach {found.linkKm.toFixed(0)} km, the horizon lies at {found.horizonKm.toFixed(0)} km (model).
        </p>
      );
    }}
  />
);
