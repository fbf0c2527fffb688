import {
  CLOSED_PATTERNS,
  fieldProbe,
  headAmplifierIm2,
  type PowerPattern,
  receivingDirectivityDb,
  shortMonopole,
  smallLoop,
} from '@velvet-reed/core/antenna';
import { lossySectionNoise, mismatchUncertainty } from '@velvet-reed/core/line';
import {
  activeStage,
  attenuatorTest,
  cascadeIntercepts,
  cascadeNoiseFactor,
  converterFloor,
  dynamicRange,
  foldAlias,
  fullScaleHeadroom,
  intermodAtAntenna,
  noiseRise,
  noiseTemperatureK,
  passiveStage,
  requiredPreampGain,
} from '@velvet-reed/core/path';
import {
  combinedDecilesDb,
  compareAntennas,
  type Environment,
  faExceededDb,
  fieldDbuv,
  fieldToPower,
  freeSpaceFieldVPerM,
  medianFaDb,
  minimumEfficiency,
  noiseFieldDbuv,
  noisePowerDbm,
} from '@velvet-reed/core/site';
import {
  dbmToDbMicrovolt,
  dbmToS,
  dbmToVoltsRms,
  emfToDbm,
  powerDb,
  powerRatio,
  sToDbm,
} from '@velvet-reed/core/units';
import { CaseInputError, type Adapter, type Inputs } from '../inputs';

const CLASS_NAMES: readonly (Environment | 'galactic')[] = ['city', 'residential', 'rural', 'quiet_rural', 'galactic'];

function environment(inputs: Inputs): Environment | 'galactic' {
  const name = inputs.text('environment').toLowerCase().replaceAll(/[ -]/g, '_');
  const found = CLASS_NAMES.find((candidate) => candidate === name);
  if (!found) throw new CaseInputError(`There is no noise class "${name}". Use one of ${CLASS_NAMES.join(', ')}.`);
  return found;
}

const stageLevel = (stage: Inputs, name: string): number | null => (stage.has(name) ? stage.number(name) : null);
const megahertz = (inputs: Inputs): number => inputs.number('f_MHz') * 1e6;

function pattern(inputs: Inputs): PowerPattern {
  switch (inputs.text('pattern')) {
    case 'short_vertical_over_perfect_ground':
      return CLOSED_PATTERNS.shortVerticalOverPerfectGround();
    case 'two_verticals_endfire': {
      const phaseRad = inputs.has('phase_rad')
        ? inputs.number('phase_rad')
        : (inputs.number('phase_deg', 0) * Math.PI) / 180;
      return CLOSED_PATTERNS.twoVerticalsEndfire(inputs.number('spacing_wl'), phaseRad);
    }
    case 'small_loop_over_perfect_ground':
      return CLOSED_PATTERNS.smallLoopOverPerfectGround();
    case 'cos_power':
      return CLOSED_PATTERNS.cosPower(inputs.number('n'));
    case 'half_wave_dipole_free_space':
      return CLOSED_PATTERNS.halfWaveDipoleFreeSpace();
    default:
      throw new CaseInputError(`There is no pattern "${inputs.text('pattern')}". Correct the case.`);
  }
}

/** Areas 04 to 08: cascade, receiver, external noise, S meter, active antennas. */
export const receiveTemplates: Readonly<Record<string, Adapter>> = {
  cascade_noise(inputs) {
    const stages = inputs.groups('stages');
    const noise = stages.map((stage) =>
      stage.has('loss_dB')
        ? passiveStage(stage.number('loss_dB'), stage.number('temp_K', 290))
        : activeStage(stage.number('gain_dB'), stage.number('nf_dB')),
    );
    const factor = cascadeNoiseFactor(noise);
    return {
      gain_dB: powerDb(noise.reduce((product, stage) => product * stage.gain, 1)),
      nf_dB: powerDb(factor),
      te_K: noiseTemperatureK(factor),
    };
  },
  cascade_intercept(inputs) {
    const result = cascadeIntercepts(
      inputs.groups('stages').map((stage) => ({
        gainDb: stage.number('gain_dB'),
        iip3Dbm: stageLevel(stage, 'iip3_dBm'),
        iip2Dbm: stageLevel(stage, 'iip2_dBm'),
      })),
    );
    return {
      gain_dB: result.gainDb,
      iip3_coherent_dBm: result.iip3CoherentDbm,
      iip3_incoherent_dBm: result.iip3IncoherentDbm,
      oip3_coherent_dBm: result.iip3CoherentDbm === null ? null : result.iip3CoherentDbm + result.gainDb,
      iip2_coherent_dBm: result.iip2CoherentDbm,
      iip2_incoherent_dBm: result.iip2IncoherentDbm,
    };
  },
  selective_intermod(inputs) {
    const result = intermodAtAntenna(
      inputs.number('order') === 2 ? 2 : 3,
      inputs.number('P1_dBm'),
      inputs.number('P2_dBm'),
      inputs.groups('stages').map((stage) => ({
        gainF1Db: stage.number('gain_f1_dB'),
        gainF2Db: stage.number('gain_f2_dB'),
        gainProductDb: stage.number('gain_product_dB'),
        iip3Dbm: stageLevel(stage, 'iip3_dBm'),
        iip2Dbm: stageLevel(stage, 'iip2_dBm'),
      })),
    );
    return {
      product_input_referred_coherent_dBm: result.coherentDbm,
      product_input_referred_incoherent_dBm: result.incoherentDbm,
      stage_contributions_dBm: result.contributionsDbm,
      dominant_stage: result.dominantStage,
    };
  },
  mismatch_uncertainty(inputs) {
    const result = mismatchUncertainty(inputs.number('gamma1'), inputs.number('gamma2'));
    return { max_dB: result.maxDb, min_dB: result.minDb, spread_dB: result.spreadDb };
  },
  passive_mismatch_noise(inputs) {
    const result = lossySectionNoise(inputs.number('Rs_ohm'), inputs.number('r1_ohm'), inputs.number('r2_ohm'));
    return {
      available_gain_dB: result.availableGainDb,
      nf_dB: result.noiseFigureDb,
      insertion_loss_50ohm_dB: result.insertionLossDb,
    };
  },
  adc_floor(inputs) {
    const result = converterFloor({
      bits: inputs.has('enob') ? inputs.number('enob') : inputs.number('bits'),
      fullScaleDbm: inputs.number('fs_dBm'),
      sampleRateHz: inputs.number('fs_MHz') * 1e6,
      bandwidthHz: inputs.number('B_Hz'),
      complexSamples: inputs.flag('complex') || inputs.flag('iq'),
    });
    return {
      snr_dB: result.snrDb,
      floor_dBm_per_Hz: result.floorDbmPerHz,
      nf_dB: result.noiseFigureDb,
      processing_gain_dB: result.processingGainDb,
      mds_dBm: result.mdsDbm,
    };
  },
  mds_sfdr(inputs) {
    const result = dynamicRange(
      inputs.number('nf_dB'),
      inputs.number('iip3_dBm'),
      inputs.number('iip2_dBm'),
      inputs.number('B_Hz'),
    );
    return {
      mds_dBm: result.mdsDbm,
      sfdr3_dB: result.sfdr3Db,
      sfdr2_dB: result.sfdr2Db,
      level3_dBm: result.level3Dbm,
      level2_dBm: result.level2Dbm,
    };
  },
  alias(inputs) {
    const result = foldAlias(megahertz(inputs), inputs.number('fs_MHz') * 1e6, inputs.number('f_max_MHz') * 1e6);
    return {
      zone: result.zone,
      appears_at_MHz: result.appearsAtHz === undefined ? null : result.appearsAtHz / 1e6,
      mirrored: result.mirrored,
      same_bin_inputs_MHz: result.sameBinHz.map((freq) => freq / 1e6),
    };
  },
  total_power_headroom(inputs) {
    const result = fullScaleHeadroom(
      inputs.numbers('signals_dBm'),
      inputs.number('fs_dBm'),
      inputs.number('gain_dB', 0),
    );
    return {
      total_dBm: result.totalDbm,
      headroom_total_dB: result.headroomTotalDb,
      peak_equivalent_dBm: result.peakDbm,
      headroom_peak_dB: result.headroomPeakDb,
      can_clip: result.canClip,
    };
  },
  attenuator_test(inputs) {
    const result = attenuatorTest(inputs.number('before_dBm'), inputs.number('after_dBm'), inputs.number('atten_dB'));
    return { order_estimate: result.order, verdict: result.verdict };
  },
  noise_rise(inputs) {
    const result = noiseRise(inputs.number('rise_dB'));
    return {
      ext_over_int_dB: result.externalOverInternalDb,
      snr_loss_dB: result.snrLossDb,
      external_limited: result.externalLimited,
    };
  },
  required_preamp_gain(inputs) {
    const result = requiredPreampGain({
      externalFaDb: inputs.number('Fa_dB'),
      lossBeforeDb: inputs.number('loss_before_dB'),
      preampNoiseFigureDb: inputs.number('preamp_nf_dB'),
      cableLossDb: inputs.number('cable_loss_dB'),
      receiverNoiseFigureDb: inputs.number('rx_nf_dB'),
      limitDb: inputs.number('limit_dB'),
    });
    return {
      snr_loss_without_preamp_dB: result.snrLossWithoutDb,
      snr_loss_infinite_gain_dB: result.snrLossInfiniteGainDb,
      preamp_needed: result.needed,
      possible: result.possible,
      min_gain_dB: result.minGainDb,
    };
  },
  external_noise(inputs) {
    const faDb = medianFaDb(environment(inputs), megahertz(inputs));
    const field = noiseFieldDbuv(faDb, megahertz(inputs), inputs.number('B_Hz'));
    return {
      Fa_dB: faDb,
      noise_dBm: noisePowerDbm(faDb, inputs.number('B_Hz')),
      E_monopole_dBuV_m: field.monopole,
      E_dipole_dBuV_m: field.dipole,
      E_isotropic_dBuV_m: field.isotropic,
    };
  },
  min_antenna_efficiency(inputs) {
    const factor = powerRatio(inputs.number('rx_nf_dB') + inputs.number('feed_loss_dB', 0));
    const result = minimumEfficiency(inputs.number('Fa_dB'), factor, inputs.number('limit_dB'));
    return {
      possible: result.possible,
      snr_loss_at_full_efficiency_dB: result.snrLossAtFullEfficiencyDb,
      min_efficiency_dB: result.minEfficiencyDb,
    };
  },
  compare_antennas(inputs) {
    const antenna = (name: string) => ({
      efficiencyDb: inputs.number(`eff_${name}_dB`),
      directivityDb: inputs.number(`dir_${name}_dB`),
    });
    const result = compareAntennas(antenna('A'), antenna('B'), inputs.number('Fa_dB'), inputs.number('system_nf_dB'));
    return { snr_advantage_A_dB: result.snrAdvantageDb, signal_level_difference_dB: result.levelDifferenceDb };
  },
  rdf: (inputs) => ({
    rdf_dB: receivingDirectivityDb(pattern(inputs), inputs.number('elevation_deg', 0), inputs.number('azimuth_deg', 0)),
  }),
  noise_percentile(inputs) {
    const name = environment(inputs);
    const deciles = name === 'galactic' ? undefined : combinedDecilesDb(name);
    const faDb =
      name === 'galactic' ? undefined : faExceededDb(name, megahertz(inputs), inputs.number('exceeded_percent'));
    return {
      Fa_median_dB: medianFaDb(name, megahertz(inputs)),
      upper_decile_dB: deciles?.upDb ?? null,
      lower_decile_dB: deciles?.downDb ?? null,
      Fa_dB: faDb ?? null,
    };
  },
  field_to_power(inputs) {
    const result = fieldToPower(inputs.number('E_dBuV_m'), megahertz(inputs), inputs.number('gain_dBi'));
    return { P_dBm: result.powerDbm, V_dBuV: result.voltageDbuv, AF_dB_per_m: result.antennaFactorDb };
  },
  dbm_to_s(inputs) {
    const level = inputs.number('P_dBm');
    const reading = dbmToS(level, megahertz(inputs));
    return {
      s_units: reading.sUnits,
      dB_over_S9: reading.dbOverS9,
      uV_50ohm: dbmToVoltsRms(level) * 1e6,
      dBuV: dbmToDbMicrovolt(level),
    };
  },
  s_to_dbm(inputs) {
    const level = sToDbm(
      { sUnits: inputs.number('s_units'), dbOverS9: inputs.number('dB_over_S9', 0) },
      megahertz(inputs),
    );
    return { P_dBm: level, uV_50ohm: dbmToVoltsRms(level) * 1e6 };
  },
  voltage_conventions(inputs) {
    const level = emfToDbm(inputs.number('emf_uV') * 1e-6);
    const reading = dbmToS(level, megahertz(inputs));
    return {
      pd_uV: dbmToVoltsRms(level) * 1e6,
      P_dBm: level,
      s_units: reading.sUnits,
      dB_over_S9: reading.dbOverS9,
    };
  },
  short_monopole(inputs) {
    const result = shortMonopole(inputs.number('h_m'), inputs.number('radius_mm') / 1000, megahertz(inputs));
    return {
      C_pF: result.capacitanceF * 1e12,
      h_eff_m: result.effectiveHeightM,
      Rr_ohm: result.radiationOhm,
      X_ohm: result.reactanceOhm,
    };
  },
  e_probe(inputs) {
    const result = fieldProbe(
      {
        effectiveHeightM: inputs.number('h_eff_m'),
        probeFarad: inputs.number('Ca_pF') * 1e-12,
        shuntFarad: inputs.number('Cs_pF') * 1e-12,
        biasOhm: inputs.number('Rb_Mohm') * 1e6,
        voltageGain: inputs.number('Av'),
      },
      inputs.number('E_uV_per_m') * 1e-6,
      megahertz(inputs),
    );
    return {
      V_gate_uV: result.gateV * 1e6,
      P_out_dBm: result.outputDbm,
      AF_dB_per_m: result.antennaFactorDb,
      corner_Hz: result.cornerHz,
    };
  },
  small_loop(inputs) {
    const result = smallLoop(
      { radiusM: inputs.number('radius_m'), wireRadiusM: inputs.number('wire_radius_mm') / 1000 },
      megahertz(inputs),
      inputs.number('E_uV_per_m') * 1e-6,
      inputs.number('Rin_ohm'),
    );
    return {
      area_m2: result.areaM2,
      h_eff_m: result.effectiveHeightM,
      emf_uV: result.emfV * 1e6,
      L_uH: result.inductanceH * 1e6,
      X_ohm: result.reactanceOhm,
      I_uA: result.currentA * 1e6,
      corner_MHz: result.cornerHz / 1e6,
    };
  },
  broadcast_field(inputs) {
    const [powerW, kind] = inputs.has('erp_W')
      ? ([inputs.number('erp_W'), 'ERP'] as const)
      : inputs.has('emrp_W')
        ? ([inputs.number('emrp_W'), 'EMRP'] as const)
        : ([inputs.number('eirp_W'), 'EIRP'] as const);
    const field = freeSpaceFieldVPerM(powerW, kind, inputs.number('d_km') * 1000);
    return { E_V_per_m: field, E_dBuV_m: fieldDbuv(field), emf_mV: field * inputs.number('h_eff_m', 1) * 1000 };
  },
  head_amp_im2(inputs) {
    const result = headAmplifierIm2({
      field1VPerM: inputs.number('E1_V_per_m'),
      field2VPerM: inputs.number('E2_V_per_m'),
      effectiveHeightM: inputs.number('h_eff_m'),
      divider: inputs.number('divider', 1),
      voltageGain: inputs.number('Av'),
      oip2Dbm: inputs.number('oip2_dBm'),
      bandStopDb: inputs.number('bandstop_dB', 0),
    });
    const sum = inputs.text('product', 'difference').replace(/\s/g, '');
    const [f1, f2] = [inputs.number('f1_MHz'), inputs.number('f2_MHz')];
    return {
      P1_out_dBm: result.output1Dbm,
      P2_out_dBm: result.output2Dbm,
      im2_out_dBm: result.productDbm,
      im2_equiv_field_dBuV_m: result.equivalentFieldDbuv,
      im2_bandstop_behind_dBm: result.stopBehindDbm,
      im2_bandstop_ahead_dBm: result.stopAheadDbm,
      product_MHz: sum === 'sum' || sum === 'f1+f2' ? f1 + f2 : Math.abs(f2 - f1),
    };
  },
};
