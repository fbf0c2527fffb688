import { switchLosses } from '@velvet-reed/core/guard';
import { diodeLimiter, limiterFigures, splitterLossDb } from '@velvet-reed/core/path';
import { fixed } from '@velvet-reed/core/units';
import { QuickAnswer } from '../../../ui/quick-answer';
import { Section, Wide } from '../../../ui/section';

/** Isolation of a splitter's outputs; common practice, no source. */
const HYBRID_ISOLATION_DB = 20;
const EXCESS_DB = 0.5;
const PICO = 1e-12;
const NANO = 1e-9;

/** Ways to give a second receiver its signal: what each loses, leaves apart, protects and forbids. */
const WAYS = [
  {
    name: 'T of coax, two receivers',
    lossDb: splitterLossDb('tee', 2),
    apart: 'none: each hears the other’s oscillator',
    protects: 'nothing: both hang on the antenna',
    forbids: 'transmitting with either',
  },
  {
    name: 'T of coax, three receivers',
    lossDb: splitterLossDb('tee', 3),
    apart: 'none',
    protects: 'nothing',
    forbids: 'transmitting with any',
  },
  {
    name: 'hybrid splitter, two receivers',
    lossDb: splitterLossDb('hybrid', 2, EXCESS_DB),
    apart: `about ${HYBRID_ISOLATION_DB} dB, when both ends are terminated`,
    protects: 'nothing: its transformers burn first',
    forbids: 'transmitting through it',
  },
  {
    name: 'switch by the key line',
    lossDb: 0.2,
    apart: 'one receiver at a time',
    protects: 'as far as its isolation and its timing go',
    forbids: 'listening on both at once',
  },
  {
    name: 'tap behind the first mixer (IF)',
    lossDb: null,
    apart: 'by the radio’s own stages',
    protects: 'as the radio protects itself',
    forbids: 'another band than the radio’s, diversity, transmit monitoring',
  },
] as const;

/** What is not on a data sheet, from what is. */
export function PartsByFigures() {
  return (
    <>
      <QuickAnswer
        title="A switch from its parts"
        hint="isolation while open, loss while closed, between 50 Ω"
        specs={[
          { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '29.7 MHz' },
          { name: 'off', label: 'Open contact, pF', dimension: 'plain', start: '0.5' },
          { name: 'on', label: 'Closed contact', dimension: 'resistance', bareUnit: 'ohm', start: '0.1 ohm' },
          {
            ...{ name: 'shunt', label: 'Shunt to ground while open', dimension: 'resistance', bareUnit: 'ohm' },
            ...{ start: '', optional: true },
          },
          { name: 'stray', label: 'Stray to ground, pF', dimension: 'plain', start: '1' },
        ]}
        answer={(value, given) => {
          const found = switchLosses(
            {
              ...{ offFarad: value('off') * PICO, onOhm: value('on'), shuntFarad: value('stray') * PICO },
              shuntOhm: given('shunt'),
            },
            value('freq'),
          );
          return `Isolation ${fixed(found.isolationDb, 1)} dB, loss in receive ${fixed(found.receiveLossDb, 2)} dB (model). Boards and boxes leak beside the contact: measure it.`;
        }}
      />
      <QuickAnswer
        title="A limiter from its diodes"
        hint="what it lets through, and what it makes of strong stations by itself"
        specs={[
          { name: 'legs', label: 'Diodes in each direction', dimension: 'plain', start: '1' },
          { name: 'saturation', label: 'Saturation current, nA', dimension: 'plain', start: '2.5' },
          { name: 'emission', label: 'Emission coefficient', dimension: 'plain', start: '1.75' },
          { name: 'hit', label: 'Level that hits it', dimension: 'level', bareUnit: 'dBm', start: '26 dBm' },
          { name: 'strong', label: 'Two strong stations of', dimension: 'level', bareUnit: 'dBm', start: '-20 dBm' },
        ]}
        answer={(value) => {
          const diodes = {
            saturationA: value('saturation') * NANO,
            emission: value('emission'),
            perLeg: value('legs'),
          };
          const hit = diodeLimiter({ ...diodes, availableDbm: value('hit'), lineOhm: 50 });
          const { p1Dbm, iip3Dbm } = limiterFigures(diodes.perLeg, diodes.saturationA, diodes.emission);
          const product = 3 * value('strong') - 2 * iip3Dbm;
          return `Of ${fixed(value('hit'), 0)} dBm it lets ${fixed(value('hit') - hit.lossDb, 1)} dBm through. It compresses at ${fixed(p1Dbm, 1)} dBm; its third-order intercept is ${fixed(iip3Dbm, 1)} dBm: those two stations make ${fixed(product, 0)} dBm beside them (model). That is what it costs while you only listen.`;
        }}
      />
      <Section title="Two receivers on one antenna" hint="side by side; losses by power division (model)">
        <Wide label="Ways to feed two receivers">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">By</th>
                <th scope="col">Loss to each</th>
                <th scope="col">Receivers apart</th>
                <th scope="col">Protects while transmitting</th>
                <th scope="col">Forbids</th>
              </tr>
            </thead>
            <tbody>
              {WAYS.map(({ name, lossDb, apart, protects, forbids }) => (
                <tr key={name}>
                  <th scope="row" className="text-ink">
                    {name}
                  </th>
                  <td className="font-mono whitespace-nowrap">{lossDb === null ? '–' : `${lossDb.toFixed(2)} dB`}</td>
                  <td>{apart}</td>
                  <td>{protects}</td>
                  <td>{forbids}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      </Section>
    </>
  );
}
