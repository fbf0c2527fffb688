import { requirePositive, requireRange } from '../errors';
import { symmetricPad } from './pads';

/** What the DC of an amplifier at the antenna meets on its way, injector first. */
export type DcPart =
  | { readonly kind: 'line'; readonly name: string; readonly lengthM: number; readonly loopOhmPerM: number }
  | { readonly kind: 'resistive pad'; readonly name: string; readonly lossDb: number }
  | { readonly kind: 'resistive splitter'; readonly name: string }
  | { readonly kind: 'transformer splitter'; readonly name: string; readonly passesDc: boolean }
  | { readonly kind: 'DC block'; readonly name: string };

export interface DcQuestion {
  readonly supplyV: number;
  readonly currentA: number;
  /** Least voltage the amplifier works at. */
  readonly leastV: number;
  /** What the injector delivers at most. */
  readonly limitA: number;
  readonly centrePositive: boolean;
  /** What the amplifier wants on the centre. */
  readonly wantsPositive: boolean;
  readonly parts: readonly DcPart[];
}

/** What arrives at the amplifier, and why something must not stay as it is. */
export interface DcFinding {
  readonly atLoadV: number;
  /** Longest line of the same kind that still leaves the least voltage, m; undefined without a line. */
  readonly limitLengthM?: number;
  readonly errors: readonly string[];
  readonly warnings: readonly string[];
  readonly fine: boolean;
}

/** Less room than this above the least voltage is remarked, share of it. Common practice, no source. */
const ROOM = 0.05;

/** Why a resistive pad must not carry DC: U²/(R1 + R2) of its T are burnt even with its output open. */
export function padInDc(name: string, lossDb: number, volts: number): string {
  const { teeSeriesOhm, teeShuntOhm } = symmetricPad(lossDb, 50);
  const watt = volts ** 2 / (teeSeriesOhm + teeShuntOhm);
  return `${name}: a resistive pad in the DC path takes ${watt.toFixed(2)} W even with its output open, and passes next to nothing. Put it on the receiver's side of the injector.`;
}

/**
 * DC along a coax feed: drop on LOOP resistance (centre and shield), polarity, current limit, and parts that must not stand in its way. A resistive pad
 * on DC burns U²/(R1 + R2) of its T even with its output open.
 */
export function dcFeed(question: DcQuestion): DcFinding {
  requirePositive(question.supplyV, 'Supply (V)');
  requirePositive(question.currentA, 'Current (A)');
  requireRange(question.leastV, 'Least voltage (V)', 0);
  const errors: string[] = [];
  const warnings: string[] = [];
  let volts = question.supplyV;
  let ohmPerM: number | undefined;
  let lines = 0;
  for (const part of question.parts) {
    switch (part.kind) {
      case 'line':
        requireRange(part.lengthM, 'Line length (m)', 0);
        requireRange(part.loopOhmPerM, 'Loop resistance (ohm per m)', 0);
        volts -= part.lengthM * part.loopOhmPerM * question.currentA;
        ohmPerM = part.loopOhmPerM;
        lines += 1;
        break;
      case 'resistive pad':
        errors.push(padInDc(part.name, part.lossDb, volts));
        break;
      case 'resistive splitter':
        errors.push(
          `${part.name}: a resistive splitter in the DC path burns and drops the supply. Use a transformer splitter with one DC leg.`,
        );
        break;
      case 'transformer splitter':
        if (!part.passesDc) errors.push(`${part.name}: this leg blocks DC. Use the leg that passes it.`);
        break;
      case 'DC block':
        errors.push(
          `${part.name}: a DC block stands between injector and amplifier. Put it on the receiver's side of the injector.`,
        );
        break;
    }
  }
  if (question.centrePositive !== question.wantsPositive)
    errors.push(
      'The polarity is wrong: the amplifier wants the other pole on the centre. Reverse it before anything is connected.',
    );
  if (question.currentA > question.limitA)
    errors.push(
      `The amplifier draws ${(1000 * question.currentA).toFixed(0)} mA, the injector gives ${(1000 * question.limitA).toFixed(0)} mA. Use a stronger one.`,
    );
  if (volts < question.leastV)
    errors.push(
      `Only ${volts.toFixed(2)} V arrive; the amplifier needs ${question.leastV.toFixed(2)} V. Shorten the line, take a thicker one, or more volts.`,
    );
  else if (volts < question.leastV * (1 + ROOM))
    warnings.push(`Only ${(volts - question.leastV).toFixed(2)} V of room are left: wet plugs can take them.`);
  const limitLengthM =
    lines === 1 && ohmPerM ? (question.supplyV - question.leastV) / (ohmPerM * question.currentA) : undefined;
  return {
    atLoadV: volts,
    ...(limitLengthM === undefined ? {} : { limitLengthM: Math.max(0, limitLengthM) }),
    errors,
    warnings,
    fine: errors.length === 0,
  };
}
