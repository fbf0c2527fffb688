import { OutOfRangeError, requireRange } from '../errors';
import type { Ground, WireModel } from '../solver/model';
import { amplifiedLoop } from './amplified-loop';
import { deltaLoop } from './delta-loop';
import { checkDimensions } from './dimensions';
import { discone } from './discone';
import { dishWithConverter } from './dish';
import { endFedWire } from './end-fed-wire';
import { fanDipole } from './fan-dipole';
import { ferriteRod } from './ferrite-rod';
import { fieldProbeKind } from './field-probe';
import { flatVDipole } from './flat-v-dipole';
import { foldedDipole } from './folded-dipole';
import { groundLaidWire } from './ground-laid-wire';
import { groundLoop } from './ground-loop';
import { halfWaveDipole } from './half-wave-dipole';
import { horn } from './horn';
import { DEFAULT_DESIGN, type AntennaKind, type Design, type KindId } from './kind';
import { quarterWave } from './quarter-wave';
import { rectangleBeam } from './rectangle-beam';
import { squareLoop } from './square-loop';
import { travellingWaveWire } from './travelling-wave-wire';
import { vDipole } from './v-dipole';
import { verticalOverRadials } from './vertical-over-radials';
import { whipOnSurface } from './whip-on-surface';
import { yagi } from './yagi';
import { axialHelixKind } from './axial-helix';
import { bentDipole } from './bent-dipole';
import { collinear } from './collinear';
import { crossedLoops } from './crossed-loops';
import { gutter } from './gutter';
import { indoorWire } from './indoor-wire';
import { invertedL } from './inverted-l';
import { jHalfWave } from './j-half-wave';
import { loadedDipole } from './loaded-dipole';
import { logPeriodicKind } from './log-periodic';
import { multibandVertical } from './multiband-vertical';
import { patch } from './patch';
import { phasedLoops } from './phased-loops';
import { quadrifilar } from './quadrifilar';
import { railWire } from './rail-wire';
import { terminatedFoldedDipole } from './terminated-folded-dipole';
import { terminatedLoop } from './terminated-loop';
import { trapDipole } from './trap-dipole';
import { tunedFrame } from './tuned-frame';
import { turnstile } from './turnstile';
import { whipOnSheet } from './whip-on-sheet';
import { windowLoop } from './window-loop';

/** Every kind of antenna that can be drafted, in the order in which lists show them. */
export const ANTENNA_KINDS: readonly AntennaKind[] = [
  halfWaveDipole,
  vDipole,
  flatVDipole,
  bentDipole,
  loadedDipole,
  trapDipole,
  fanDipole,
  foldedDipole,
  terminatedFoldedDipole,
  quarterWave,
  verticalOverRadials,
  multibandVertical,
  jHalfWave,
  collinear,
  whipOnSurface,
  whipOnSheet,
  endFedWire,
  invertedL,
  railWire,
  indoorWire,
  gutter,
  squareLoop,
  deltaLoop,
  windowLoop,
  amplifiedLoop,
  crossedLoops,
  phasedLoops,
  fieldProbeKind,
  rectangleBeam,
  yagi,
  logPeriodicKind,
  discone,
  turnstile,
  quadrifilar,
  axialHelixKind,
  patch,
  travellingWaveWire,
  groundLaidWire,
  terminatedLoop,
  groundLoop,
  ferriteRod,
  tunedFrame,
  dishWithConverter,
  horn,
];

const known = (id: KindId): AntennaKind | undefined => ANTENNA_KINDS.find((kind) => kind.id === id);

/** @throws OutOfRangeError for an id of no kind. */
export function antennaKind(id: KindId): AntennaKind {
  const kind = known(id);
  if (!kind) throw new OutOfRangeError(`There is no kind of antenna called "${id}". Choose another.`, 'kind');
  return kind;
}

/** The wires of a design. @throws OutOfRangeError for a kind that is no wire. */
export function wireModel(design: Design, ground: Ground): WireModel {
  const kind = antennaKind(design.kind);
  if (!kind.model)
    throw new OutOfRangeError(`A ${kind.name.toLowerCase()} is computed by closed form, not by wires.`, 'kind');
  return kind.model(design, ground);
}

/** A design to begin with; its conductor suits the kind (tube for a loop, fine wire for a coil), else the frequency: rod at VHF, wire below. */
export function startDesign(kind: KindId, freqHz: number): Design {
  const byFrequencyM = freqHz > 300e6 ? 0.0015 : freqHz > 30e6 ? 0.004 : 0.002;
  const diameterM = known(kind)?.conductorM ?? byFrequencyM;
  return { ...DEFAULT_DESIGN, kind, freqHz, diameterM };
}

/** Refuses a design with a value that cannot be built. @throws OutOfRangeError */
export function checkDesign(design: Design): void {
  requireRange(design.freqHz, 'Frequency (Hz)', 1e4, 300e9);
  requireRange(design.diameterM, 'Conductor diameter (m)', 1e-5, 0.2);
  requireRange(design.allowance, 'Trim allowance (ratio)', 0, 0.2);
  checkDimensions(antennaKind(design.kind).parameters, design);
}
