import { momentText } from '../../../ui/moment-text';
import { tryDraft } from '@velvet-reed/core/antenna';
import { type Candidate, choiceVerdict, mayStay } from '@velvet-reed/core/choose';
import type { SweepData } from '@velvet-reed/core/formats';
import { meterZeroProves } from '@velvet-reed/core/guard';
import { amplifierWords, riseOf } from '@velvet-reed/core/noise';
import { noiseRise, overNoise, snrLossDigits } from '@velvet-reed/core/path';
import { transmitterField, locatorOf } from '@velvet-reed/core/site';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { bandTable, dipShiftHz, findResonances, nextCut } from '@velvet-reed/core/sweep';
import { bandText, fixed, frequencyText, lengthText, plain, showPower } from '@velvet-reed/core/units';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { bandsOf, designOf, latestRevision } from '../../../data/derive';
import type { StationData } from '../../../data/station';
import { cellsOf, judgedGuard } from '../../../data/guard';
import { levelsOf } from '../../../data/levels';
import { hasField, plannedTransmitters } from '../../../data/transmitters';
import { judgedNoise, judgedPath, judgedTrial, type OrderView } from '../../../data/verdicts';
import { swrChart } from './report-chart';

type Row = readonly string[];

const heading = (text: string): Content => ({ text, style: 'heading' });
const table = (head: Row, rows: readonly Row[]): Content =>
  rows.length === 0
    ? { text: 'Nothing recorded.', style: 'dim' }
    : {
        table: {
          headerRows: 1,
          widths: head.map((_, i) => (i === 0 ? '*' : 'auto')),
          body: [head.map((text) => ({ text, style: 'dim' })), ...rows.map((row) => [...row])],
        },
        layout: 'lightHorizontalLines',
        style: 'table',
      };
const swrText = (swr: number | null | undefined): string =>
  swr === undefined ? 'outside' : swr === null ? 'infinite' : swr.toFixed(2);

const kilohertz = (hz: number): string =>
  `${hz < 0 ? '−' : '+'}${fixed(Math.abs(hz) / 1000, Math.abs(hz) < 1e4 ? 1 : 0)} kHz`;

/** The whole path of a station as a document: each section computes from the same records and functions as its stage. */
export function reportOf(
  data: StationData,
  samples: ReadonlyMap<number, SweepData>,
  ranked: readonly Candidate[],
  nowMs: number,
): TDocumentDefinitions {
  return {
    info: { title: `Velvet Reed, ${data.station.name}` },
    pageSize: 'A4',
    pageMargins: [50, 50, 45, 50],
    defaultStyle: { font: 'Text', fontSize: 9.5, lineHeight: 1.25 },
    styles: {
      title: { fontSize: 22, bold: true },
      heading: { fontSize: 13, bold: true, margin: [0, 14, 0, 4] },
      dim: { color: '#665d52' },
      table: { margin: [0, 2, 0, 6], fontSize: 8.5 },
      sum: { fontSize: 8, font: 'Mono' },
    },
    footer: (page, pages) => ({
      text: `${data.station.name}, page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
    }),
    content: [
      { text: data.station.name, style: 'title' },
      {
        text: `${locatorOf(data.station)}, ITU Region ${ituRegionOf(data.station)}. Report of ${momentText(nowMs)} UTC. Computed figures are models unless they say measured.`,
        style: 'dim',
      },
      ...listenPart(data),
      ...choosePart(ranked),
      ...antennaPart(data, samples),
      ...trialPart(data),
      ...noisePart(data),
      ...pathPart(data),
      ...guardPart(data),
      ...recordPart(data),
    ],
  };
}

function listenPart(data: StationData): Content[] {
  return [
    heading('Listen: wanted, and who transmits nearby'),
    table(
      ['Wanted', 'Band', 'Weight'],
      data.targets.map((target) => [target.name, bandText(target.lowHz, target.highHz), String(target.weight)]),
    ),
    table(
      ['Transmitter', 'Frequency', 'Power', 'Distance', 'Field (model)', 'Isotropic (model)'],
      data.transmitters.map((transmitter) => {
        const field = hasField(transmitter) ? transmitterField(transmitter) : undefined;
        return [
          transmitter.name,
          frequencyText(transmitter.freqHz),
          `${plain(showPower(transmitter.powerW))} ${transmitter.powerKind}`,
          transmitter.distanceM === null ? '' : lengthText(transmitter.distanceM),
          field ? `${fixed(field.fieldDbuv, 0)} dBµV/m` : '',
          field ? `${fixed(field.isotropicDbm, 0)} dBm` : '',
        ];
      }),
    ),
  ];
}

function choosePart(ranked: readonly Candidate[]): Content[] {
  const verdict = choiceVerdict(ranked);
  return [
    heading('Choose: which antenna, here'),
    verdict.best ? `${verdict.sentence} ${verdict.best.reason}` : verdict.sentence,
    table(
      ['Antenna', 'May stay', 'SNR lost, weighted (model)', 'Reason'],
      ranked.map((candidate) => [
        candidate.spec.source === 'kind'
          ? `${candidate.spec.name}, ${frequencyText(candidate.spec.design.freqHz, 3)}`
          : candidate.spec.name,
        mayStay(candidate) ? 'yes' : 'no',
        candidate.lossDb === undefined ? 'not judged' : `${fixed(candidate.lossDb, 1)} dB`,
        candidate.reason,
      ]),
    ),
  ];
}

function antennaPart(data: StationData, samples: ReadonlyMap<number, SweepData>): Content[] {
  const bands = bandsOf(data);
  return data.antennas.flatMap((antenna): Content[] => {
    const revision = latestRevision(data, antenna.id);
    if (!revision) return [];
    const { draft, fault } = tryDraft(designOf(data, revision));
    if (!draft) return [heading(`Draft and Bench: ${antenna.name}`), fault ?? ''];
    const steps = data.trimSteps.filter((step) => step.antennaId === antenna.id);
    const sweeps = data.sweeps.flatMap((header) => {
      const sweep = samples.get(header.id);
      return sweep && header.antennaId === antenna.id ? [{ name: header.name, sweep }] : [];
    });
    return [
      heading(`Draft and Bench: ${antenna.name}`),
      `Revision ${revision.number}, cut for ${frequencyText(revision.freqHz)}. Tests passed: ${revision.gates.length === 0 ? 'none yet' : revision.gates.join(', ')}.`,
      table(
        ['Piece', 'Count', 'Cut to', 'Finished (model)'],
        draft.pieces.map((piece) => [
          piece.name,
          String(piece.count),
          lengthText(piece.cutM, 4),
          lengthText(piece.finishedM, 4),
        ]),
      ),
      ...(sweeps.length > 0
        ? [
            { svg: swrChart(sweeps, bands), margin: [0, 6, 0, 4] } satisfies Content,
            table(
              ['Sweep (measured)', 'Dip', 'Since the one before', 'SWR', 'Band: edges and middle'],
              sweeps.map(({ name, sweep }, i) => {
                const dip = findResonances(sweep)[0];
                const shiftHz =
                  i > 0 ? dipShiftHz(findResonances(sweeps[i - 1].sweep), findResonances(sweep)) : undefined;
                const since = shiftHz === undefined ? '' : kilohertz(shiftHz);
                const rows = bandTable(sweep, bands).map(
                  (row) =>
                    `${row.name}: ${swrText(row.low?.swr)} / ${swrText(row.middle?.swr)} / ${swrText(row.high?.swr)}`,
                );
                return [name, dip ? frequencyText(dip.freqHz, 4) : 'none', since, swrText(dip?.swr), rows.join('\n')];
              }),
            ),
          ]
        : []),
      ...(steps.length > 0
        ? [
            table(
              [`Length of ${draft.trimName} (measured)`, 'Dip', 'Since the one before', 'Then cut'],
              steps.map((step, i) => {
                const cut = nextCut(steps.slice(0, i + 1), revision.freqHz);
                return [
                  lengthText(step.lengthM, 4),
                  frequencyText(step.freqHz, 5),
                  i > 0 ? kilohertz(step.freqHz - steps[i - 1].freqHz) : '',
                  cut.state === 'cut' ? lengthText(cut.cutM, 2) : cut.state,
                ];
              }),
            ),
          ]
        : []),
    ];
  });
}

function trialPart(data: StationData): Content[] {
  return data.trials.flatMap((trial): Content[] => {
    const { names, readings, verdict } = judgedTrial(data, trial);
    const level = (value: number | null): string => (value === null ? '–' : fixed(value, 1));
    return [
      heading(`Trial: ${trial.name}`),
      verdict.sentence + (verdict.warning ? ` ${verdict.warning}` : ''),
      table(
        [`${names.b} minus ${names.a} (measured)`, 'Mean', '95 % interval', 'Verdict'],
        [verdict.snr, verdict.level, verdict.noise].map((one) => [
          one.what === 'snr' ? 'SNR' : one.what,
          one.result ? `${fixed(one.result.mean, 1)} dB` : '–',
          one.interval ? `${fixed(one.interval.low, 1)} to ${fixed(one.interval.high, 1)} dB` : '–',
          one.proven ? 'proven' : 'not proven',
        ]),
      ),
      table(
        ['Round', 'Level A', 'Noise A', 'Level B', 'Noise B', 'Scale'],
        readings.map((pair) => [
          String(pair.round + 1),
          level(pair.levelADbm),
          level(pair.noiseADbm),
          level(pair.levelBDbm),
          level(pair.noiseBDbm),
          pair.scale,
        ]),
      ),
    ];
  });
}

function noisePart(data: StationData): Content[] {
  const { sentence, next } = judgedNoise(data);
  return [
    heading('Noise: antenna off and on'),
    `${sentence} ${next}`,
    table(
      ['Frequency', 'Off', 'On', 'Rise (measured)', 'SNR lost', 'Amplifier'],
      levelsOf(data).offOn.map((check) => {
        const rise = riseOf(check);
        const { snrLossDb } = noiseRise(rise);
        return [
          frequencyText(check.freqHz),
          `${fixed(check.offDbm, 1)} dBm`,
          `${fixed(check.onDbm, 1)} dBm`,
          `${fixed(rise, 1)} dB`,
          snrLossDb === null ? 'no rise' : `${fixed(snrLossDb, snrLossDb < 1 ? 2 : 1)} dB`,
          amplifierWords(rise),
        ];
      }),
    ),
  ];
}

function pathPart(data: StationData): Content[] {
  return data.paths.flatMap((path): Content[] => {
    const judged = judgedPath(data, path);
    if (!judged) return [];
    const { target, receiver, orders, verdict } = judged;
    const row = (name: string, cell: (view: OrderView) => string): Row => [name, ...orders.map(cell)];
    return [
      heading(`Path: ${path.name}`),
      `${verdict.sentence} ${verdict.next}`,
      table(
        [`Judged on ${target.name} (model)`, 'Order 1', 'Order 2'],
        [
          row('Stages', ({ stages }) => [...stages.map((stage) => stage.name), receiver.name].join('\n')),
          row('Gain', ({ analysis }) => `${fixed(analysis.gainDb, 1)} dB`),
          row('Noise figure', ({ analysis }) => `${fixed(analysis.noiseFigureDb, 1)} dB`),
          row('Third-order input intercept', ({ analysis }) =>
            analysis.iip3Dbm === null ? 'none' : `${fixed(analysis.iip3Dbm, 1)} dBm`,
          ),
          row('Room to full scale', ({ analysis }) =>
            analysis.headroomDb === null ? 'no carriers' : `${fixed(analysis.headroomDb, 0)} dB`,
          ),
          row(
            'SNR lost, products counted',
            ({ analysis: { snrLossWithProductsDb: lossDb } }) => `${fixed(lossDb, snrLossDigits(lossDb))} dB`,
          ),
          row('Strongest product', ({ analysis: { worstProduct } }) =>
            worstProduct
              ? `${worstProduct.signals.join(' and ')}, ${worstProduct.label}, in ${worstProduct.madeIn}: ${overNoise(worstProduct)}`
              : 'none falls here',
          ),
        ],
      ),
    ];
  });
}

function guardPart(data: StationData): Content[] {
  return plannedTransmitters(data).flatMap((plan): Content[] => {
    const { rows, proof: proven } = judgedGuard(data, plan);
    const proof = meterZeroProves(plan.powerW, plan.meterResolutionW);
    return [
      heading(`Guard: ${plan.name}, ${plain(showPower(plan.powerW))}`),
      `${proven.sentence} ${proven.next}`,
      table(
        ['Receiver input', 'Level (model)', 'Margin', 'State', 'Why'],
        rows.map((row) => {
          const { down, worst } = cellsOf(proven, row.id);
          return [
            `${row.name} on ${row.antennaName}`,
            down?.route ? `${fixed(down.route.dbm, 1)} dBm` : '–',
            down?.marginDb === undefined ? '–' : `${fixed(down.marginDb, 1)} dB`,
            worst ? `${worst.colour} (${worst.state.name})` : '–',
            worst?.sentence ?? '',
          ];
        }),
      ),
      `A wattmeter that shows zero proves at least ${fixed(proof.isolationAtLeastDb, 0)} dB; the receiver could still see ${fixed(proof.receiverCouldSeeDbm, 0)} dBm.`,
    ];
  });
}

function recordPart(data: StationData): Content[] {
  return [
    heading('Notebook'),
    table(
      ['Entry', 'Step', 'UTC'],
      [...data.entries]
        .sort((a, b) => a.atMs - b.atMs)
        .map((entry) => [entry.text, entry.step, new Date(entry.atMs).toISOString().slice(0, 16).replace('T', ' ')]),
    ),
    heading('Raw files'),
    ...data.attachments.map((file): Content => ({
      text: [
        { text: `${file.name}, ${file.size} bytes\n`, bold: true },
        { text: `SHA-256 ${file.sha256}`, style: 'sum' },
      ],
      margin: [0, 0, 0, 4],
    })),
    ...(data.attachments.length === 0 ? [{ text: 'No file was imported.', style: 'dim' }] : []),
  ];
}
