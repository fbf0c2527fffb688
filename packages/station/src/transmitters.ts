import type { Saved } from '@velvet-reed/contract';
import type { PowerKind } from '@velvet-reed/core/site';
import type { StationData } from './record';

type Stored = Saved<'transmitters'>;
/** A transmitter whose field at a distance follows from what is known of it. */
export type FieldKnown = Stored & { readonly powerKind: PowerKind; readonly distanceM: number };

export const hasField = (transmitter: Stored): transmitter is FieldKnown =>
  transmitter.powerKind !== 'output' && transmitter.distanceM !== null;

/** Transmitters of others, as forecasts and paths count them: the own one is Guard's matter. */
export const othersTransmitters = (data: Pick<StationData, 'transmitters'>): readonly FieldKnown[] =>
  data.transmitters.filter((one): one is FieldKnown => !one.own && hasField(one));

/** A plan of Guard with what it takes from its transmitter. */
export type PlannedTransmitter = Saved<'guardPlans'> & { readonly powerW: number };

/** Guard's plans with the power of their transmitters. */
export const plannedTransmitters = (data: StationData): readonly PlannedTransmitter[] =>
  data.guardPlans.flatMap((plan) => {
    const transmitter = data.transmitters.find(({ id }) => id === plan.transmitterId);
    return transmitter ? [{ ...plan, powerW: transmitter.powerW }] : [];
  });

/** Own transmitters that Guard has no plan for. */
export const unplannedTransmitters = (data: StationData): readonly Stored[] =>
  data.transmitters.filter((one) => one.own && !data.guardPlans.some((plan) => plan.transmitterId === one.id));
