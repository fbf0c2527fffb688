import { BEFORE_STORM, BEFORE_TRANSMITTING } from '../../../data/check-lists';
import { fixed, frequencyText, plain, showPower } from '@velvet-reed/core/units';
import { CAUTIONS } from '@velvet-reed/core/safety';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { guardVerdict, judgedGuard, judgedSequence } from '@velvet-reed/station/guard/judge';
import { transmitFrequencies } from '@velvet-reed/station/guard/drawing';
import { judgedTest } from '@velvet-reed/station/guard/evidence';
import type { StationData } from '@velvet-reed/station/record';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { lookOf } from '../guard-state';

const escaped = (text: string): string => text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Room of the drawing on the card. */
const [WIDTH, ROW, BOX_W, BOX_H] = [520, 46, 118, 26];

/** The station as boxes and lines: antennas above, parts between, transmitter and receivers below. */
function stationSvg(data: StationData, plan: PlannedTransmitter): string {
  const { graph } = judgedGuard(data, plan).drawn;
  const shown = graph.nodes.filter(({ id }) => !id.startsWith('neighbour:') && !id.startsWith('away:'));
  const rows = [
    shown.filter(({ kind }) => kind === 'antenna'),
    shown.filter(({ kind }) => !['antenna', 'transmitter', 'receiver'].includes(kind)),
    shown.filter(({ kind }) => kind === 'transmitter' || kind === 'receiver'),
  ].filter((row) => row.length > 0);
  const at = new Map(
    rows.flatMap((row, r) =>
      row.map(({ id }, i) => [id, { x: ((i + 0.5) * WIDTH) / row.length, y: r * ROW + BOX_H / 2 + 4 }] as const),
    ),
  );
  const lines = graph.links.flatMap(({ from, to }) => {
    const [a, b] = [at.get(from.node), at.get(to.node)];
    return a && b ? [`<line x1="${a.x}" y1="${a.y}" x2="${b.x}" y2="${b.y}" stroke="black" stroke-width="1"/>`] : [];
  });
  const boxes = shown.flatMap(({ id, name }) => {
    const place = at.get(id);
    const short = name.length > 22 ? `${name.slice(0, 20)}…` : name;
    return place
      ? [
          `<rect x="${place.x - BOX_W / 2}" y="${place.y - BOX_H / 2}" width="${BOX_W}" height="${BOX_H}" fill="white" stroke="black" stroke-width="0.8"/>`,
          `<text x="${place.x}" y="${place.y + 3}" text-anchor="middle" font-size="9">${escaped(short)}</text>`,
        ]
      : [];
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${rows.length * ROW}">${lines.join('')}${boxes.join('')}</svg>`;
}

/** One page for the shack: the station, what each state does, the tests, the key line, the check lists. */
export function shackCard(data: StationData, plan: PlannedTransmitter, day: string): TDocumentDefinitions {
  const judged = judgedGuard(data, plan);
  const { proof } = judged;
  const verdict = guardVerdict(judged);
  const sequence = judgedSequence(plan);
  const tests = data.powerTests
    .filter(({ guardPlanId }) => guardPlanId === plan.id)
    .map((test) => {
      const { loss } = judgedTest(data, test, plan).judged;
      const input = data.guardInputs.find(({ id }) => id === test.guardInputId);
      return `${new Date(test.atMs).toISOString().slice(0, 10)}, ${input?.name ?? 'deleted input'} at ${frequencyText(test.freqHz)}: ${
        loss
          ? `${fixed(loss.db, 1)} dB (${fixed(loss.lowDb, 1)} to ${fixed(loss.highDb, 1)}), up to ${plain(showPower(loss.upToW))}`
          : 'no result'
      }`;
    });
  const list = (items: readonly string[]) => ({ ul: items.map((text) => ({ text })), fontSize: 9 });
  const heading = (text: string) => ({
    text,
    bold: true,
    fontSize: 11,
    margin: [0, 7, 0, 2] as [number, number, number, number],
  });
  return {
    pageSize: 'A4',
    pageMargins: [36, 32, 36, 28],
    defaultStyle: { font: 'Text', fontSize: 9.5 },
    content: [
      { text: `${data.station.name}: ${plan.name}, ${plain(showPower(plan.powerW))}`, bold: true, fontSize: 15 },
      {
        text: `${transmitFrequencies(data, plan)
          .map((hz) => frequencyText(hz))
          .join(', ')}; printed ${day}`,
        fontSize: 9,
      },
      { text: `${verdict.sentence} ${verdict.next}`, margin: [0, 5, 0, 5] },
      { svg: stationSvg(data, plan), width: WIDTH },
      heading('What each state does'),
      {
        fontSize: 8.5,
        table: {
          headerRows: 1,
          widths: ['*', ...proof.receivers.map(() => 'auto')],
          body: [
            ['State', ...proof.receivers.map(({ name }) => name)],
            ...proof.states.map((state) => [
              state.name,
              ...proof.receivers.map(({ id }) => {
                const cell = proof.cells.find((one) => one.receiver === id && one.state.id === state.id);
                return cell ? `${lookOf(cell).word}${cell.route ? `, ${fixed(cell.route.dbm, 0)} dBm` : ''}` : '';
              }),
            ]),
          ],
        },
        layout: 'lightHorizontalLines',
      },
      heading('Stepwise tests'),
      list(tests.length > 0 ? tests : ['None yet: nothing here is measured as a whole.']),
      heading('Key line'),
      list([
        sequence
          ? `Switched by ${sequence.by}. ${sequence.known ? sequence.known.remarks.join(' ') || 'RF comes after the switch and is gone before it goes back.' : 'Its times are not complete.'}`
          : 'What drives the switch was not entered, nor its times.',
        'Loads and currents by the radio’s manual; a diode across each coil, cathode to plus.',
      ]),
      heading('Before transmitting'),
      list(BEFORE_TRANSMITTING),
      heading('Before a storm'),
      list(BEFORE_STORM),
      {
        text: `${CAUTIONS.transmitter} No permission: local codes, makers’ manuals and licensed people decide.`,
        fontSize: 8,
        margin: [0, 8, 0, 0],
      },
    ],
  };
}
