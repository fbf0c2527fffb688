import { momentText } from '../../../ui/moment-text';
import { tryDraft } from '@velvet-reed/core/antenna';
import { type Candidate, choiceVerdict, mayStay } from '@velvet-reed/core/choose';
import type { Estimate, MeasuredPattern } from '@velvet-reed/core/bearing';
import type { LogSummary, SweepData } from '@velvet-reed/core/formats';
import { COLOUR_WORDS, meterZeroProves } from '@velvet-reed/core/guard';
import { amplifierWords, riseOf, whoseNoise } from '@velvet-reed/core/noise';
import { noiseRise, overNoise, snrLossDigits } from '@velvet-reed/core/path';
import { transmitterField, locatorOf } from '@velvet-reed/core/site';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { bandTable, dipShiftHz, findResonances, nextCut } from '@velvet-reed/core/sweep';
import { bandText, fixed, frequencyText, lengthText, plain, showPower } from '@velvet-reed/core/units';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { bandsOf, designOf, latestRevision } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { cellsOf, guardVerdict, judgedGuard } from '@velvet-reed/station/guard/judge';
import { BEFORE_STORM, BEFORE_TRANSMITTING } from '../../../data/check-lists';
import { judgedDirection } from '@velvet-reed/station/direction';
import { levelsOf } from '@velvet-reed/station/levels';
import { causeText, seasonRows, shiftWords } from '@velvet-reed/station/seasons';
import { hasField, plannedTransmitters } from '@velvet-reed/station/transmitters';
import {
  judgedNoise,
  judgedPath,
  judgedTrial,
  type OrderView,
  standingTests,
  strongestCarrier,
  unjudgedPath,
} from '@velvet-reed/station/verdicts';
import { levelPicture, noisePicture, patternPicture, planPicture } from './pictures';
import { swrChart } from './report-chart';

type Row = readonly string[];

const heading = (text: string): Content => ({ text, style: 'heading' });
/** @param plain the same with a cell for each number, for tables of their own; absent: as printed */
const table = (
  head: Row,
  rows: readonly Row[],
  plain?: { readonly head: Row; readonly rows: readonly Row[] },
): Content =>
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
        ...(plain ? { plain: [plain.head, ...plain.rows] } : {}),
      };
const swrText = (swr: number | null | undefined): string =>
  swr === undefined ? 'outside' : swr === null ? 'infinite' : swr.toFixed(2);

const kilohertz = (hz: number): string =>
  `${hz < 0 ? '−' : '+'}${fixed(Math.abs(hz) / 1000, Math.abs(hz) < 1e4 ? 1 : 0)} kHz`;

/** Logs of patterns as they were measured, by the number of the log. */
type Patterns = ReadonlyMap<number, MeasuredPattern>;

/** What a report is made from: the station within the chosen period and antennas. */
interface ReportSource {
  readonly data: StationData;
  readonly samples: ReadonlyMap<number, SweepData>;
  readonly ranked: readonly Candidate[];
  /** How far the wire model had come with the ranking; absent when it was done. */
  readonly unfinished?: { readonly answered: number; readonly asked: number };
  readonly patterns: Patterns;
  readonly summaries: ReadonlyMap<number, LogSummary>;
}

/** The sections of a report, in their order. */
const SECTION_PARTS: readonly (readonly [id: string, name: string, make: (source: ReportSource) => Content[]])[] = [
  ['listen', 'Listen: targets and transmitters', ({ data }) => listenPart(data)],
  ['plot', 'Plot: the plan', ({ data }) => plotPart(data)],
  ['choose', 'Choose: the ranking', (source) => choosePart(source)],
  ['antennas', 'Draft and Bench: antennas, sweeps, cuts', ({ data, samples }) => antennaPart(data, samples)],
  ['trials', 'Trials', ({ data }) => trialPart(data)],
  ['patterns', 'Trials: measured patterns', ({ data, patterns }) => patternPart(data, patterns)],
  ['noise', 'Noise: log, devices, off and on', ({ data }) => noisePart(data)],
  ['bearings', 'Noise: bearings', ({ data }) => bearingPart(data)],
  ['path', 'Path: chain and levels', ({ data }) => pathPart(data)],
  ['guard', 'Guard: the card', ({ data }) => guardPart(data)],
  ['seasons', 'Seasons', ({ data, samples, summaries }) => seasonPart(data, samples, summaries)],
  ['upkeep', 'Upkeep', ({ data }) => upkeepPart(data)],
  ['diary', 'Diary and raw files', ({ data }) => recordPart(data)],
];
export const SECTIONS: readonly { readonly id: string; readonly name: string }[] = SECTION_PARTS.map(([id, name]) => ({
  id,
  name,
}));

/** What goes into a report. */
export interface ReportChoice {
  /** Sections that stay out. */
  readonly without: readonly string[];
  /** Antennas that stay out. */
  readonly withoutAntennas: readonly number[];
  /** Days as typed, "2026-03-10", both included; empty: no bound. */
  readonly from: string;
  readonly to: string;
  /** Words of one's own at the head of a section. */
  readonly captions: Readonly<Record<string, string>>;
}
/** Why a period cannot be reported; undefined for one that can. */
export const periodFault = ({ from, to }: Pick<ReportChoice, 'from' | 'to'>): string | undefined =>
  from !== '' && to !== '' && from > to
    ? `The period ends (${to}) before it begins (${from}). Exchange the two dates, or empty one.`
    : undefined;

export const WHOLE_REPORT: ReportChoice = { without: [], withoutAntennas: [], from: '', to: '', captions: {} };

const DAY_MS = 86_400_000;

/** The records of the chosen period and antennas; what has no time is always in. */
export function chosenData(data: StationData, { from, to, withoutAntennas }: ReportChoice): StationData {
  const [fromMs, toMs] = [Date.parse(`${from}T00:00:00Z`), Date.parse(`${to}T00:00:00Z`) + DAY_MS];
  const out = new Set<number | null>(withoutAntennas);
  const when = (ms: number | null): boolean => ms === null || (!(ms < fromMs) && !(ms >= toMs));
  const own = (one: { readonly antennaId: number | null }): boolean => !out.has(one.antennaId);
  const trials = data.trials.filter((one) => !out.has(one.antennaAId) && !out.has(one.antennaBId));
  const kept = new Set(trials.map(({ id }) => id));
  return {
    ...data,
    antennas: data.antennas.filter(({ id }) => !out.has(id)),
    sweeps: data.sweeps.filter((one) => own(one) && when(one.measuredMs)),
    trimSteps: data.trimSteps.filter((one) => own(one) && when(one.atMs)),
    readings: data.readings.filter((one) => kept.has(one.trialId) && when(one.atMs)),
    trials,
    levels: data.levels.filter((one) => own(one) && when(one.atMs)),
    logs: data.logs.filter((one) => own(one) && (one.kind === 'pattern' || when(one.first))),
    nullLogs: data.nullLogs.filter((one) => own(one) && when(one.atMs)),
    entries: data.entries.filter((one) => own(one) && when(one.atMs)),
    upkeep: data.upkeep.filter(own),
  };
}

/** The foot of each page, made where the pages are: functions do not cross to a worker. */
export const reportFooter = (name: string) => (page: number, pages: number) => ({
  text: `${name}, page ${page} of ${pages}`,
  alignment: 'center' as const,
  fontSize: 8,
});

/** A station as a document: each section computes from the same records and functions as its step. The same station gives the same document but for its date. */
export function reportOf(
  whole: ReportSource,
  nowMs: number,
  choice: ReportChoice = WHOLE_REPORT,
): TDocumentDefinitions {
  const data = chosenData(whole.data, choice);
  const source = { ...whole, data };
  const period =
    choice.from === '' && choice.to === ''
      ? ''
      : ` Period: ${choice.from || 'the beginning'} to ${choice.to || 'today'}.`;
  return {
    info: { title: `Velvet Reed, ${data.station.name}`, creationDate: new Date(nowMs), modDate: new Date(nowMs) },
    ...{ language: 'en', displayTitle: true },
    pageSize: 'A4',
    pageMargins: [50, 50, 45, 50],
    defaultStyle: { font: 'Text', fontSize: 9.5, lineHeight: 1.25 },
    styles: {
      title: { fontSize: 22, bold: true },
      heading: { fontSize: 13, bold: true, margin: [0, 14, 0, 4] },
      dim: { color: '#665d52' },
      own: { italics: true, margin: [0, 0, 0, 4] },
      table: { margin: [0, 2, 0, 6], fontSize: 8.5 },
      sum: { fontSize: 8, font: 'Mono' },
    },
    content: [
      { text: data.station.name, style: 'title' },
      {
        text: `${locatorOf(data.station)}, ITU Region ${ituRegionOf(data.station)}. Report of ${momentText(nowMs)} UTC.${period} Computed figures are models unless they say measured.`,
        style: 'dim',
      },
      ...SECTION_PARTS.flatMap(([id, , make]): Content[] => {
        if (choice.without.includes(id)) return [];
        const caption = choice.captions[id]?.trim() ?? '';
        const [head, ...rest] = make(source);
        if (head === undefined) return [];
        return [head, ...(caption === '' ? [] : [{ text: caption, style: 'own' }]), ...rest];
      }),
    ],
  };
}

const picture = (drawing: string | undefined): Content[] =>
  drawing === undefined ? [] : [{ svg: drawing, margin: [0, 6, 0, 4] }];

function plotPart(data: StationData): Content[] {
  const drawing = planPicture(data, judgedDirection(data.nullLogs));
  return [
    heading('Plot: the plan'),
    ...picture(drawing),
    table(
      ['Feature', 'Kind', 'Height'],
      data.plotFeatures.map((one) => [one.name, one.kind, one.kind === 'picture' ? '' : lengthText(one.heightM)]),
    ),
  ];
}

/** A figure with its interval as data: a cell for each number. */
const bounds = (name: string, estimate: Estimate | undefined, unit: string): Row =>
  estimate
    ? [name, ...[estimate.value, estimate.low, estimate.high].map((value) => fixed(value, 1)), unit]
    : [name, '', '', '', unit];

function patternPart(data: StationData, patterns: Patterns): Content[] {
  return data.logs.flatMap((log): Content[] => {
    const pattern = patterns.get(log.id);
    if (!pattern) return [];
    const { turns } = pattern;
    const of = (estimate: Estimate | undefined, unit: string): string =>
      estimate
        ? `${fixed(estimate.value, 1)}${unit} (95 % ${fixed(estimate.low, 1)} to ${fixed(estimate.high, 1)})`
        : 'not measured';
    return [
      heading(`Pattern: ${log.name}`),
      ...picture(patternPicture(pattern)),
      table(
        ['Of the pattern (measured)', 'Value'],
        [
          ['Width, half power', of(pattern.widthDeg, '°')],
          ['Front to back', of(pattern.frontToBackDb, ' dB')],
          ['To the sides', of(pattern.frontToSideDb, ' dB')],
          ['Turns averaged', String(turns)],
        ],
        {
          head: ['Of the pattern (measured)', 'Value', '95 % from', '95 % to', 'Unit'],
          rows: [
            bounds('Width, half power', pattern.widthDeg, '°'),
            bounds('Front to back', pattern.frontToBackDb, 'dB'),
            bounds('To the sides', pattern.frontToSideDb, 'dB'),
            ['Turns averaged', String(turns), '', '', ''],
          ],
        },
      ),
    ];
  });
}

function bearingPart(data: StationData): Content[] {
  const { turns, fix, fault } = judgedDirection(data.nullLogs);
  if (turns.length === 0) return [];
  return [
    heading('Noise: bearings'),
    fix
      ? `The source lies near ${lengthText(fix.xM)} east, ${lengthText(fix.yM)} north; ellipse of one sigma ${lengthText(fix.semiMajorM)} by ${lengthText(fix.semiMinorM)}.`
      : (fault ?? 'One turn gives a direction, two give a place.'),
    table(
      ['Turn (measured)', 'Axis', 'Direction', 'Null'],
      turns.map(({ log, fit, bearingDeg, fault: why }) => [
        log.name,
        fit ? `${fixed(fit.axisDeg, 1)}°` : (why ?? '–'),
        bearingDeg === undefined ? 'either end' : `${fixed(bearingDeg, 0)}°`,
        fit ? `${fixed(fit.depthDb, 0)} dB` : '–',
      ]),
    ),
  ];
}

function seasonPart(
  data: StationData,
  samples: ReadonlyMap<number, SweepData>,
  summaries: ReadonlyMap<number, LogSummary>,
): Content[] {
  const rows = seasonRows(data, samples, summaries);
  if (rows.length === 0) return [];
  return [
    heading('Seasons'),
    table(
      ['What', 'Seasons', 'Moved by', '95 % interval', 'Why, or where to look'],
      rows.map((row) => [
        `${row.what}, ${row.about}`,
        `${row.now} and ${row.then}`,
        shiftWords(row.shift.shift, row.unit),
        row.shift.low === null || row.shift.high === null
          ? 'not known'
          : `${shiftWords(row.shift.low, row.unit)} to ${shiftWords(row.shift.high, row.unit)}`,
        row.shift.moved
          ? [...row.known, causeText(row)].filter((one) => one !== '').join('; ') || 'not known'
          : 'within its interval',
      ]),
      {
        head: ['What', 'Seasons', 'Moved by', '95 % from', '95 % to', 'Why, or where to look'],
        rows: rows.map((row) => [
          `${row.what}, ${row.about}`,
          `${row.now} and ${row.then}`,
          ...[row.shift.shift, row.shift.low, row.shift.high].map((value) =>
            value === null ? '' : shiftWords(value, row.unit),
          ),
          row.shift.moved ? [...row.known, causeText(row)].filter((one) => one !== '').join('; ') : '',
        ]),
      },
    ),
  ];
}

function upkeepPart(data: StationData): Content[] {
  if (data.upkeep.length === 0) return [];
  const day = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
  return [
    heading('Upkeep'),
    table(
      ['What is looked at', 'Every', 'Last done'],
      data.upkeep.map((duty) => [
        duty.name,
        `${fixed(duty.everyDays, 0)} d`,
        duty.doneMs === null ? 'never' : day(duty.doneMs),
      ]),
    ),
  ];
}

/** A frequency as data, MHz. */
const megahertz = (freqHz: number): string => String(freqHz / 1e6);

function listenPart(data: StationData): Content[] {
  return [
    heading('Listen: wanted, and who transmits nearby'),
    table(
      ['Wanted', 'Band', 'Weight'],
      data.targets.map((target) => [target.name, bandText(target.lowHz, target.highHz), String(target.weight)]),
      {
        head: ['Wanted', 'From (MHz)', 'To (MHz)', 'Weight'],
        rows: data.targets.map(({ name, lowHz, highHz, weight }) => [
          ...[name, megahertz(lowHz), megahertz(highHz), String(weight)],
        ]),
      },
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

function choosePart({ ranked, unfinished }: ReportSource): Content[] {
  const verdict = choiceVerdict(ranked);
  const sentence = verdict.best ? `${verdict.sentence} ${verdict.best.reason}` : verdict.sentence;
  return [
    heading('Choose: which antenna, here'),
    unfinished
      ? `The ranking was not computed to its end when this report was made: the wire model had answered ${unfinished.answered} of ${unfinished.asked} questions. The table holds what was known then; save the report again when Choose, Ranking is done.`
      : sentence,
    table(
      ['Antenna', 'May stay', 'Usual station over the noise, weighted (model)', 'Reason'],
      ranked.map((candidate) => [
        candidate.spec.source === 'kind'
          ? `${candidate.spec.name}, ${frequencyText(candidate.spec.design.freqHz, 3)}`
          : candidate.spec.name,
        mayStay(candidate) ? 'yes' : 'no',
        candidate.heard === undefined ? 'not judged' : `${fixed(candidate.heard.middle, 0)} dB`,
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
        ['Piece', 'Count', 'Cut to', 'Finished, as drafted'],
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
    const { names, readings, verdict, holding } = judgedTrial(data, trial);
    const level = (value: number | null): string => (value === null ? '–' : fixed(value, 1));
    return [
      heading(`Trial: ${trial.name}`),
      verdict.sentence +
        (verdict.warning ? ` ${verdict.warning}` : '') +
        (holding.state === 'holds' ? '' : ` ${holding.sentence}`),
      table(
        [`${names.b} minus ${names.a} (measured)`, 'Mean', '95 % interval', 'Verdict'],
        [verdict.snr, verdict.level, verdict.noise].map((one) => [
          one.what === 'snr' ? 'SNR' : one.what,
          one.result ? `${fixed(one.result.mean, 1)} dB` : '–',
          one.interval ? `${fixed(one.interval.low, 1)} to ${fixed(one.interval.high, 1)} dB` : '–',
          one.proven ? 'proven' : 'not proven',
        ]),
        {
          head: [`${names.b} minus ${names.a} (measured)`, 'Mean (dB)', '95 % from (dB)', '95 % to (dB)', 'Verdict'],
          rows: [verdict.snr, verdict.level, verdict.noise].map((one) => [
            one.what === 'snr' ? 'SNR' : one.what,
            one.result ? fixed(one.result.mean, 1) : '',
            one.interval ? fixed(one.interval.low, 1) : '',
            one.interval ? fixed(one.interval.high, 1) : '',
            one.proven ? 'proven' : 'not proven',
          ]),
        },
      ),
      // three cells a pair: a trial of thousands is many pages
      table(
        ['Round', `${names.a}: level, noise`, `${names.b}: level, noise`],
        readings.map((pair) => [
          String(pair.round + 1),
          `${level(pair.levelADbm)}, ${level(pair.noiseADbm)} ${pair.scale}`,
          `${level(pair.levelBDbm)}, ${level(pair.noiseBDbm)} ${pair.scale}`,
        ]),
        {
          head: ['Round', 'Level A', 'Noise A', 'Level B', 'Noise B', 'Scale'],
          rows: readings.map((pair) => [
            String(pair.round + 1),
            level(pair.levelADbm),
            level(pair.noiseADbm),
            level(pair.levelBDbm),
            level(pair.noiseBDbm),
            pair.scale,
          ]),
        },
      ),
    ];
  });
}

function noisePart(data: StationData): Content[] {
  const { sentence, next } = judgedNoise(data);
  return [
    heading('Noise: log, devices, antenna off and on'),
    `${sentence} ${next}`,
    ...picture(noisePicture(data)),
    ...(standingTests(data).length > 0 ? [whoseNoise(standingTests(data)).sentence] : []),
    table(
      ['Device', 'Frequency', 'On (measured)', 'Off (measured)'],
      levelsOf(data).devices.map(({ device, freqHz, onDbm, offDbm }) => [
        device,
        frequencyText(freqHz),
        `${fixed(onDbm, 1)} dBm`,
        `${fixed(offDbm, 1)} dBm`,
      ]),
    ),
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
          amplifierWords(rise, strongestCarrier(data)),
        ];
      }),
    ),
  ];
}

function pathPart(data: StationData): Content[] {
  return data.paths.flatMap((path): Content[] => {
    const judged = judgedPath(data, path);
    if (!judged) {
      const unjudged = unjudgedPath(data, path);
      return unjudged ? [heading(`Path: ${path.name}`), unjudged.sentence] : [];
    }
    const { target, receiver, orders, verdict } = judged;
    const row = (name: string, cell: (view: OrderView) => string): Row => [name, ...orders.map(cell)];
    return [
      heading(`Path: ${path.name}`),
      `${verdict.sentence} ${verdict.next}`,
      ...picture(orders[0] && levelPicture(orders[0], receiver.name)),
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
    const judged = judgedGuard(data, plan);
    const { rows, proof: proven } = judged;
    const verdict = guardVerdict(judged);
    const proof = meterZeroProves(plan.powerW, plan.meterResolutionW);
    return [
      heading(`Guard: ${plan.name}, ${plain(showPower(plan.powerW))}`),
      `${verdict.sentence} ${verdict.next}`,
      table(
        ['Receiver input', 'Level (model)', 'Margin', 'State', 'Why'],
        rows.map((row) => {
          const { down, worst } = cellsOf(proven, row.id);
          return [
            `${row.name} on ${row.antennaName}`,
            down?.route ? `${fixed(down.route.dbm, 1)} dBm` : '–',
            down?.marginDb === undefined ? '–' : `${fixed(down.marginDb, 1)} dB`,
            worst ? `${COLOUR_WORDS[worst.colour]} (${worst.state.name}, ${frequencyText(worst.freqHz)})` : '–',
            worst?.sentence ?? '',
          ];
        }),
      ),
      table(
        ['Before transmitting'],
        BEFORE_TRANSMITTING.map((line) => [line]),
      ),
      table(
        ['Before a storm'],
        BEFORE_STORM.map((line) => [line]),
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
