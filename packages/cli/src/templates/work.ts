import { resonantDipole } from '@velvet-reed/core/antenna';
import { friisCoupling, leakLevel, parallelDipoleCoupling, rampUp, switchingExposure } from '@velvet-reed/core/guard';
import { lengthForTarget, planTrims, trimSensitivity } from '@velvet-reed/core/sweep';
import {
  binomialLimits,
  censoredDifference,
  pairedDifferences,
  readingsForHalfWidth,
  signedRank,
  snrBandwidth,
} from '@velvet-reed/core/trial';
import type { Adapter } from '../inputs';

/** Areas 12, 14 and 15: transmit protection, lengths and trimming, statistics. */
export const workTemplates: Readonly<Record<string, Adapter>> = {
  leak_level(inputs) {
    const result = leakLevel(inputs.number('P_W'), inputs.number('isolation_dB'), inputs.number('limit_dBm'));
    return {
      P_tx_dBm: result.transmitDbm,
      leak_dBm: result.leakDbm,
      V_rms: result.voltsRms,
      V_peak: result.voltsPeak,
      margin_dB: result.marginDb,
      required_isolation_dB: result.requiredIsolationDb,
      safe: result.safe,
    };
  },
  sequencing(inputs) {
    const result = switchingExposure(
      {
        mode: inputs.text('mode') === 'ptt' ? 'key_line' : 'rf_sense',
        rfDelayS: inputs.number('t_rf_ms', 0) / 1000,
        senseDelayS: inputs.number('sense_delay_ms', 0) / 1000,
        switchS: inputs.number('switch_ms') / 1000,
        rfTailS: inputs.number('rf_tail_ms', 0) / 1000,
        releaseS: inputs.number('release_ms', 0) / 1000,
      },
      inputs.number('P_W'),
      inputs.number('isolation_unswitched_dB'),
    );
    return {
      hot_ms_start: result.hotStartS * 1000,
      hot_ms_end: result.hotEndS * 1000,
      level_dBm: result.levelDbm,
      energy_mJ: result.energyJ * 1000,
      safe_sequence: result.safeSequence,
    };
  },
  dipole_coupling(inputs) {
    const result = parallelDipoleCoupling(inputs.number('f_MHz') * 1e6, inputs.number('d_m'), inputs.number('P_W'));
    return {
      R21_ohm: result.mutual.re,
      X21_ohm: result.mutual.im,
      coupling_dB: result.couplingDb,
      received_dBm: result.receivedDbm,
      friis_dB: result.friisDb,
      reactive_limit_m: result.reactiveM,
      far_field_m: result.farFieldM,
    };
  },
  friis_coupling(inputs) {
    const result = friisCoupling({
      freqHz: inputs.number('f_MHz') * 1e6,
      distanceM: inputs.number('d_m'),
      transmitGainDbi: inputs.number('Gt_dBi'),
      receiveGainDbi: inputs.number('Gr_dBi'),
      powerW: inputs.number('P_W'),
      apertureM: inputs.number('D_m', 0),
    });
    return {
      path_loss_dB: result.pathLossDb,
      received_dBm: result.receivedDbm,
      far_field_limit_m: result.farFieldM,
      reactive_limit_m: result.reactiveM,
      friis_valid: result.valid,
    };
  },
  ramp_up(inputs) {
    const result = rampUp({
      testW: inputs.number('P_test_W'),
      fullW: inputs.number('P_full_W'),
      limitDbm: inputs.number('limit_dBm'),
      limiterDbm: inputs.number('limiter_threshold_dBm'),
      bands: inputs.groups('bands').map((band) => ({
        name: band.text('name'),
        readingDbm: band.number('reading_dBm'),
        backgroundDbm: band.number('background_dBm'),
      })),
    });
    return {
      predicted_dBm: result.bands.map((band) => band.predictedDbm),
      valid: result.bands.map((band) => band.valid),
      worst_band: result.worstBand,
      allowed_power_W: result.allowedPowerW,
    };
  },
  resonant_dipole(inputs) {
    const result = resonantDipole(inputs.number('f_MHz') * 1e6, inputs.number('diameter_mm') / 1000);
    return { length_m: result.lengthM, k: result.shortening, R_ohm: result.resistanceOhm };
  },
  trim_sensitivity(inputs) {
    const result = trimSensitivity(
      inputs.number('f_MHz') * 1e6,
      inputs.number('length_mm') / 1000,
      inputs.number('f_target_MHz') * 1e6,
    );
    return {
      df_dl_MHz_per_mm: result.slopeHzPerM / 1e9,
      cut_mm: result.cutM * 1000,
      cut_linear_mm: result.cutLinearM * 1000,
    };
  },
  trim_two_points(inputs) {
    const freqs = inputs.numbers('freqs_MHz');
    const result = lengthForTarget(
      inputs.numbers('lengths_mm').map((length, i) => ({ lengthM: length / 1000, freqHz: freqs[i] * 1e6 })),
      inputs.number('f_target_MHz') * 1e6,
    );
    return {
      length_mm: result.lengthM * 1000,
      extrapolated: result.extrapolated,
      end_offset_mm: result.endOffsetM * 1000,
    };
  },
  trim_jacobian(inputs) {
    const megahertz = (freqs: readonly number[]): number[] => freqs.map((freq) => freq * 1e6);
    const plan = planTrims(
      megahertz(inputs.numbers('baseline_MHz')),
      inputs.groups('trials').map((trial) => ({
        changeM: trial.number('change_mm') / 1000,
        freqsHz: megahertz(trial.numbers('freqs_MHz')),
      })),
      megahertz(inputs.numbers('targets_MHz')),
      inputs.has('weights') ? inputs.numbers('weights') : undefined,
    );
    return {
      jacobian: plan.jacobian.map((row) => row.map((value) => value / 1e9)),
      change_mm: plan.changeM.map((value) => value * 1000),
      predicted_MHz: plan.predictedHz.map((value) => value / 1e6),
      change_cut_only_mm: plan.changeCutOnlyM.map((value) => value * 1000),
      predicted_cut_only_MHz: plan.predictedCutOnlyHz.map((value) => value / 1e6),
    };
  },
  paired_t(inputs) {
    const b = inputs.numbers('B_dB');
    const result = pairedDifferences(
      inputs.numbers('A_dB').map((a, i) => a - b[i]),
      inputs.number('confidence', 95) / 100,
    );
    return {
      mean_dB: result.mean,
      sd_dB: result.sd,
      se_dB: result.standardError,
      ci_low_dB: result.ciLow,
      ci_high_dB: result.ciHigh,
      t: result.t,
      p_two_sided: result.pTwoSided,
    };
  },
  wilcoxon(inputs) {
    const result = signedRank(inputs.numbers('differences_dB'));
    return {
      n_used: result.used,
      W_plus: result.wPlus,
      p_two_sided: result.pTwoSided,
      hodges_lehmann_dB: result.hodgesLehmann,
    };
  },
  binomial_ci(inputs) {
    const result = binomialLimits(inputs.number('k'), inputs.number('n'), inputs.number('confidence', 95) / 100);
    return {
      wilson_low: result.wilsonLow,
      wilson_high: result.wilsonHigh,
      cp_low: result.exactLow,
      cp_high: result.exactHigh,
    };
  },
  readings_needed(inputs) {
    const result = readingsForHalfWidth(
      inputs.number('sd_dB'),
      inputs.number('half_width_dB'),
      inputs.number('confidence', 95) / 100,
      inputs.number('rho', 0),
    );
    return { n_normal: result.normal, n_student: result.student, n_with_autocorrelation: result.correlated };
  },
  snr_bandwidth(inputs) {
    const result = snrBandwidth({
      snrDb: inputs.number('snr_dB'),
      fromHz: inputs.number('B1_Hz'),
      toHz: inputs.number('B2_Hz'),
      bitsPerSecond: inputs.has('bitrate_bps') ? inputs.number('bitrate_bps') : null,
      threshold2500Db: inputs.has('threshold_2500_dB') ? inputs.number('threshold_2500_dB') : null,
    });
    return {
      snr_B2_dB: result.snrDb,
      snr_2500_dB: result.snr2500Db,
      cn0_dBHz: result.carrierToDensityDbHz,
      ebn0_dB: result.energyPerBitDb,
      margin_dB: result.marginDb,
    };
  },
  censored_difference(inputs) {
    const result = censoredDifference(inputs.readings('A_dB'), inputs.readings('B_dB'), inputs.number('threshold_dB'));
    return {
      n_exact: result.exact,
      n_greater: result.greater,
      n_less: result.less,
      mean_ml_dB: result.meanDb,
      sd_ml_dB: result.sdDb,
      naive_mean_dB: result.naiveMeanDb,
    };
  },
};
