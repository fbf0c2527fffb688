import {
  bearingFix,
  cancellation,
  combining,
  ELLIPSE_95,
  farField,
  figureEightNull,
  patternFigures,
  reflectionRipple,
  threeAntennas,
} from '@velvet-reed/core/bearing';
import {
  bandpassLossRuleDb,
  type Branch,
  coaxStub,
  coilResistance,
  ellipticLowpass,
  type FilterFamily,
  type FilterShape,
  ladder,
  ladderLossDb,
  type LadderSpec,
  notchTrap,
  prototype,
  prototypeLossDb,
  qFrequencyHz,
} from '@velvet-reed/core/filter';
import {
  biasTee,
  diodeLimiter,
  minimumLossPad,
  resistiveSplitter,
  symmetricPad,
  wilkinson,
} from '@velvet-reed/core/path';
import { CaseInputError, isRecord, type Adapter, type Inputs } from '../inputs';

const family = (inputs: Inputs): FilterFamily => {
  const type = inputs.text('type');
  if (type === 'butterworth' || type === 'chebyshev') return type;
  throw new CaseInputError(`There is no filter family "${type}". Correct the case.`);
};
const shape = (inputs: Inputs): FilterShape => {
  const kind = inputs.text('kind');
  if (kind === 'lowpass' || kind === 'highpass' || kind === 'bandpass' || kind === 'bandstop') return kind;
  throw new CaseInputError(`There is no filter kind "${kind}". Correct the case.`);
};
export const specOf = (inputs: Inputs): LadderSpec => ({
  shape: shape(inputs),
  family: family(inputs),
  order: inputs.number('order'),
  rippleDb: inputs.number('ripple_dB', 0.1),
  edgesHz: inputs.numbers('edges_MHz').map((edge) => edge * 1e6),
  lineOhm: inputs.number('Z0_ohm', 50),
  first: inputs.text('topology', 'shunt_first') === 'series_first' ? 'series' : 'shunt',
});
const partsOf = (branches: readonly Branch[]) => {
  const parts = branches.flatMap(({ henry, farad }) => [
    ...(henry === undefined ? [] : [{ type: 'L', value: henry * 1e6 }]),
    ...(farad === undefined ? [] : [{ type: 'C', value: farad * 1e12 }]),
  ]);
  return { element_types: parts.map(({ type }) => type), elements: parts.map(({ value }) => value) };
};

/** Areas 10, 11, 16 and 17: filters, pads and splitters, bearings, patterns. */
export const chainTemplates: Readonly<Record<string, Adapter>> = {
  prototype_g(inputs) {
    const [type, order, ripple] = [family(inputs), inputs.number('order'), inputs.number('ripple_dB', 0.1)];
    const { g, load } = prototype(type, order, ripple);
    return {
      g: [...g, load],
      attenuation_dB_at_omega_0p3_0p7_1_1p5_2p5: [0.3, 0.7, 1, 1.5, 2.5].map((w) =>
        prototypeLossDb(type, order, ripple, w),
      ),
    };
  },
  lc_filter(inputs) {
    const spec = specOf(inputs);
    const branches = ladder(spec);
    return {
      ...partsOf(branches),
      loss_dB: inputs.numbers('f_MHz').map((mhz) => ladderLossDb(branches, mhz * 1e6, spec.lineOhm)),
    };
  },
  elliptic_lowpass(inputs) {
    const [edgeHz, lineOhm] = [inputs.number('fc_MHz') * 1e6, inputs.number('Z0_ohm', 50)];
    const { stopHz, zerosHz, branches } = ellipticLowpass({
      order: inputs.number('order'),
      rippleDb: inputs.number('ripple_dB'),
      stopDb: inputs.number('stop_dB'),
      edgeHz,
      lineOhm,
      trapOrder: inputs.numbers('trap_order'),
    });
    return {
      stop_edge_MHz: stopHz / 1e6,
      zeros_MHz: zerosHz.map((hz) => hz / 1e6),
      ...partsOf(branches),
      loss_dB_at_half_fc_fc_stopedge_1p5stop_3fc: [edgeHz / 2, edgeHz, stopHz, 1.5 * stopHz, 3 * edgeHz].map((hz) =>
        ladderLossDb(branches, hz, lineOhm),
      ),
    };
  },
  finite_q_loss(inputs) {
    const spec = specOf(inputs);
    const branches = ladder(spec);
    const [q, hz] = [inputs.number('Q'), inputs.number('f_query_MHz') * 1e6];
    return {
      loss_dB: ladderLossDb(branches, hz, spec.lineOhm, coilResistance(q, qFrequencyHz(spec))),
      loss_lossless_dB: ladderLossDb(branches, hz, spec.lineOhm),
      rule_dB: spec.shape === 'bandpass' ? bandpassLossRuleDb(spec, q) : null,
    };
  },
  notch_trap(inputs) {
    const trap = notchTrap({
      notchHz: inputs.number('f0_MHz') * 1e6,
      farad: inputs.number('C_pF') * 1e-12,
      q: inputs.number('Q'),
      lineOhm: inputs.number('Z0_ohm', 50),
    });
    return {
      L_uH: trap.henry * 1e6,
      depth_dB: trap.depthDb,
      width_3dB_MHz: trap.widthHz / 1e6,
      loss_wanted_dB: trap.lossDb(inputs.number('f_wanted_MHz') * 1e6),
    };
  },
  coax_stub_notch(inputs) {
    const stub = coaxStub({
      kind: inputs.text('kind') === 'short_half' ? 'shorted half' : 'open quarter',
      notchHz: inputs.number('f_notch_MHz') * 1e6,
      velocityFactor: inputs.number('vf'),
      lineOhm: inputs.number('line_Z0_ohm', 50),
      stubOhm: inputs.number('stub_Z0_ohm', 50),
      dbPer100m: inputs.number('loss_dB_per_100m', 0),
    });
    return {
      length_m: stub.lengthM,
      depth_dB: stub.depthDb,
      loss_wanted_dB: stub.lossDb(inputs.number('f_wanted_MHz') * 1e6),
      next_notch_MHz: stub.nextNotchHz / 1e6,
    };
  },
  pads(inputs) {
    const pad = symmetricPad(inputs.number('A_dB'), inputs.number('Z0_ohm', 50));
    return {
      T_series_ohm: pad.teeSeriesOhm,
      T_shunt_ohm: pad.teeShuntOhm,
      pi_shunt_ohm: pad.piShuntOhm,
      pi_series_ohm: pad.piSeriesOhm,
      T_power_fractions: [...pad.teePowers],
    };
  },
  min_loss_pad(inputs) {
    const pad = minimumLossPad(inputs.number('Z1_ohm'), inputs.number('Z2_ohm'));
    return { series_ohm: pad.seriesOhm, shunt_ohm: pad.shuntOhm, loss_dB: pad.lossDb };
  },
  resistive_splitter(inputs) {
    const star = resistiveSplitter(inputs.number('outputs'), inputs.number('Z0_ohm', 50));
    return {
      R_ohm: star.ohm,
      loss_dB: star.lossDb,
      isolation_dB: star.isolationDb,
      loss_other_open_dB: star.otherOpenDb,
      loss_other_short_dB: star.otherShortDb,
    };
  },
  wilkinson(inputs) {
    const divider = wilkinson(inputs.number('f0_MHz') * 1e6, inputs.number('f_MHz') * 1e6);
    return {
      loss_dB: divider.lossDb,
      isolation_dB: divider.isolationDb,
      input_return_loss_dB: divider.inputReturnLossDb,
      output_return_loss_dB: divider.outputReturnLossDb,
    };
  },
  bias_tee(inputs) {
    const tee = biasTee({
      lineOhm: inputs.number('Z0_ohm', 50),
      freqHz: inputs.number('f_MHz') * 1e6,
      henry: inputs.number('L_uH') * 1e-6,
      farad: inputs.number('C_nF') * 1e-9,
      ampere: inputs.number('I_mA', 0) / 1000,
      chokeOhm: inputs.number('R_choke_ohm', 0),
      cableOhm: inputs.number('R_cable_ohm', 0),
    });
    return {
      choke_corner_kHz: tee.chokeCornerHz / 1e3,
      capacitor_corner_kHz: tee.capacitorCornerHz / 1e3,
      insertion_loss_dB: tee.lossDb,
      return_loss_dB: tee.returnLossDb,
      dc_drop_V: tee.dropV,
    };
  },
  diode_limiter(inputs) {
    const limiter = diodeLimiter({
      availableDbm: inputs.number('P_dBm'),
      saturationA: inputs.number('Is_A'),
      emission: inputs.number('n'),
      perLeg: inputs.number('m', 1),
      lineOhm: inputs.number('Z0_ohm', 50),
    });
    return {
      out_dBm: limiter.outDbm,
      limiting_loss_dB: limiter.lossDb,
      third_harmonic_dBc: limiter.thirdDbc,
      peak_V: limiter.peakV,
    };
  },
  figure8_null(inputs) {
    const eight = figureEightNull(inputs.number('delta_deg'), inputs.number('residual_dB'));
    return { response_dB: eight.responseDb, null_depth_dB: eight.nullDepthDb, in_phase_shift_deg: eight.shiftDeg };
  },
  bearing_fix(inputs) {
    const declination = inputs.number('declination_deg', 0);
    const raw = inputs.raw('stations');
    const stations = (Array.isArray(raw) ? raw : []).map((one: unknown) => {
      if (!isRecord(one) || !Array.isArray(one.pos_km))
        throw new CaseInputError('A station needs pos_km. Correct the case.');
      return {
        eastKm: Number(one.pos_km[0]),
        northKm: Number(one.pos_km[1]),
        bearingDeg: Number(one.bearing_deg) + declination,
        sigmaDeg: Number(one.sigma_deg),
      };
    });
    const fix = bearingFix(stations, inputs.flag('axial'));
    return {
      east_km: fix.eastKm,
      north_km: fix.northKm,
      semi_major_km: fix.semiMajorKm,
      semi_minor_km: fix.semiMinorKm,
      major_axis_deg: fix.majorAxisDeg,
      semi_major_95_km: fix.semiMajorKm * ELLIPSE_95,
      chi_square: fix.chiSquare,
    };
  },
  cancellation(inputs) {
    const left = cancellation(
      inputs.number('amp_error_dB'),
      inputs.number('phase_error_deg'),
      inputs.number('wanted_depth_dB', 40),
    );
    return { depth_dB: left.depthDb, phase_needed_deg: left.phaseNeededDeg, amp_needed_dB: left.amplitudeNeededDb };
  },
  combining(inputs) {
    const sums = combining(inputs.numbers('snr_dB'));
    return { mrc_dB: sums.maximumRatioDb, selection_dB: sums.selectionDb, equal_gain_dB: sums.equalGainDb };
  },
  pattern_metrics(inputs) {
    const figures = patternFigures(inputs.numbers('pattern_dB'));
    return {
      peak_deg: figures.peakDeg,
      hpbw_deg: figures.widthDeg,
      front_to_back_dB: figures.frontToBackDb,
      front_to_rear_dB: figures.frontToRearDb,
      max_sidelobe_dB: figures.sideLobeDb,
    };
  },
  far_field(inputs) {
    const far = farField(inputs.number('f_MHz') * 1e6, inputs.number('D_m'), inputs.number('d_m'));
    return {
      far_field_m: far.farFieldM,
      phase_error_deg: far.phaseErrorDeg,
      recommended_m: far.recommendedM,
      ok: far.enough,
    };
  },
  ripple(inputs) {
    const ripple = reflectionRipple(inputs.number('reflected_dB'), inputs.number('observed_pp_dB'));
    return {
      max_error_dB: ripple.mostDb,
      min_error_dB: ripple.leastDb,
      pp_dB: ripple.rippleDb,
      reflected_from_observed_dB: ripple.reflectedDb,
    };
  },
  three_antenna(inputs) {
    const gains = threeAntennas(inputs.number('f_MHz') * 1e6, inputs.number('d_m'), {
      ab: inputs.number('S21_AB_dB'),
      ac: inputs.number('S21_AC_dB'),
      bc: inputs.number('S21_BC_dB'),
    });
    return {
      path_loss_dB: gains.pathLossDb,
      gain_A_dBi: gains.gainADbi,
      gain_B_dBi: gains.gainBDbi,
      gain_C_dBi: gains.gainCDbi,
    };
  },
};
