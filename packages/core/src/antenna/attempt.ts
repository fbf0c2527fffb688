import { CoreError } from '../errors';
import type { Gate } from './build-plan';
import type { Design, Dimensions, Draft, Fit, PlaceRoom, Reception } from './kind';
import { antennaKind } from './kinds';

/** What a design gives, or the sentence why it cannot be made with these dimensions: a stored draft may be one. */
function attempt<T>(work: () => T): { readonly value: T } | { readonly fault: string } {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}

/** The draft of a design, or why there is none. */
export function tryDraft(design: Design): { readonly draft?: Draft; readonly fault?: string } {
  const tried = attempt(() => antennaKind(design.kind).draft(design));
  return 'value' in tried ? { draft: tried.value } : tried;
}

/** Dimensions of a design as far as there are any: where a closed form does not hold, that dimension is absent. */
export function knownDimensions(design: Design): Partial<Dimensions> {
  const out: Record<string, number> = {};
  for (const parameter of antennaKind(design.kind).parameters) {
    const { id } = parameter;
    const set = design.dimensions[id];
    const tried = set === undefined ? attempt(() => parameter.start(design, out)) : { value: set };
    if ('value' in tried && Number.isFinite(tried.value)) out[id] = tried.value;
  }
  return out;
}

/** Whether a design fits; one that cannot be made does not, and says why. */
export function fitOf(design: Design, room: PlaceRoom): Fit {
  const tried = attempt(() => antennaKind(design.kind).fit(design, room));
  return 'value' in tried
    ? tried.value
    : { fits: false, reason: tried.fault.replace(/\.$/, ''), needsSpanM: 0, needsHeightM: 0 };
}

/** What a design hands on by closed form; undefined for kinds that have none. Where it cannot be computed it says why and counts as outside. */
export function receptionOf(design: Design): ((freqHz: number) => Reception) | undefined {
  const made = attempt(() => antennaKind(design.kind).reception?.(design));
  if ('fault' in made) return () => outside(made.fault);
  const { value } = made;
  return (
    value &&
    ((freqHz) => {
      const tried = attempt(() => value(freqHz));
      return 'value' in tried ? tried.value : outside(tried.fault);
    })
  );
}

/** 0 dBi is what overload reckons with where nothing is known. */
const outside = (remark: string): Reception => ({ realisedGainDbi: 0, transfer: 0, validity: 'outside', remark });

/** The test of an antenna that only a measurement passes; undefined where every test is judged by eye. */
export const measuredGate = (design: Design): Gate | undefined =>
  tryDraft(design).draft?.steps.flatMap(({ gate }) => (gate?.measured ? [gate] : []))[0];
