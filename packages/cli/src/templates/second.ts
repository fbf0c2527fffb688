import { optimumHorn, probeNoiseField } from '@velvet-reed/core/antenna';
import {
  averageTurns,
  crossingOf,
  nullSector,
  nullSteering,
  substitutionGain,
  twoRay,
} from '@velvet-reed/core/bearing';
import { ladder, lossSpread } from '@velvet-reed/core/filter';
import { switchLosses } from '@velvet-reed/core/guard';
import {
  directivityBounds,
  gammaOfSwr,
  mainLineLossDb,
  mismatchLossDb,
  returnLossDb,
  swrThroughLoss,
} from '@velvet-reed/core/line';
import { gaussianClipping, mixedBehindPad, reciprocalMixing } from '@velvet-reed/core/path';
import { coilNoise, coreTurns, detuned, rodSensitivity, tuningSpan } from '@velvet-reed/core/resonator';
import {
  EFFECTIVE_EARTH,
  horizonKm,
  hydrogenVelocityMPerS,
  linkRange,
  noisePowerDbm,
  radiometer,
  snrFromField,
} from '@velvet-reed/core/site';
import { distanceFromRippleM, velocityFromRipple } from '@velvet-reed/core/sweep';
import { effectiveNumber, fadingSpacing, readingMeans, sameSlotsTest, signTest } from '@velvet-reed/core/trial';
import { dbmToS, powerDb, SPEED_OF_LIGHT_M_PER_S, sumPowersDb } from '@velvet-reed/core/units';
import type { Adapter, Inputs } from '../inputs';
import { specOf } from './chain';

const megahertz = (inputs: Inputs): number => inputs.number('f_MHz') * 1e6;

/** Reflection, receivers and noise of the second set. */
const receiving: Readonly<Record<string, Adapter>> = {
  swr_to_all(inputs) {
    const gamma = gammaOfSwr(inputs.number('swr'));
    return {
      gamma_mag: gamma,
      return_loss_dB: returnLossDb(gamma),
      mismatch_loss_dB: mismatchLossDb(gamma),
      reflected_percent: 100 * gamma ** 2,
    };
  },
  swr_only_deembed(inputs) {
    const swr = swrThroughLoss(inputs.number('swr_shack'), inputs.number('matched_loss_dB'));
    return { physical: swr !== null, swr_antenna: swr };
  },
  fault_from_ripple(inputs) {
    const rippleHz = inputs.number('ripple_MHz') * 1e6;
    return {
      distance_m: distanceFromRippleM(rippleHz, inputs.number('vf', 1)),
      vf_from_length: inputs.has('known_length_m')
        ? velocityFromRipple(rippleHz, inputs.number('known_length_m'))
        : null,
    };
  },
  reciprocal_mixing(inputs) {
    const result = reciprocalMixing({
      interfererDbm: inputs.number('P_dBm'),
      noiseDbcPerHz: inputs.number('L_dBc_per_Hz'),
      bandwidthHz: inputs.number('B_Hz'),
      mdsDbm: inputs.number('mds_dBm'),
    });
    return {
      reciprocal_noise_dBm: result.noiseDbm,
      total_floor_dBm: result.floorDbm,
      rise_dB: result.riseDb,
      interferer_for_3dB_dBm: result.interfererFor3Dbm,
    };
  },
  gaussian_clipping(inputs) {
    const result = gaussianClipping(inputs.number('P_dBm'), inputs.number('fs_dBm'));
    return { crest_available_dB: result.crestDb, sigma_ratio: result.sigmas, clipped_fraction: result.clippedShare };
  },
  attenuator_mixed(inputs) {
    const result = mixedBehindPad(inputs.number('real_dBm'), inputs.number('im3_dBm'), inputs.number('atten_dB'));
    return { before_dBm: result.beforeDbm, after_dBm: result.afterDbm, drop_dB: result.dropDb };
  },
  combine_noise(inputs) {
    const total = sumPowersDb(inputs.numbers('Fa_list_dB'));
    return { Fa_total_dB: total, noise_dBm: noisePowerDbm(total, inputs.number('B_Hz')) };
  },
  snr_from_field(inputs) {
    const result = snrFromField({
      fieldDbuvPerM: inputs.number('E_dBuV_m'),
      freqHz: megahertz(inputs),
      bandwidthHz: inputs.number('B_Hz'),
      antenna: { efficiencyDb: inputs.number('efficiency_dB', 0), directivityDb: inputs.number('directivity_dBi', 0) },
      faDb: inputs.number('Fa_dB'),
      systemNoiseFigureDb: inputs.number('system_nf_dB'),
    });
    return { signal_dBm: result.signalDbm, noise_dBm: result.noiseDbm, snr_dB: result.snrDb };
  },
  noise_floor_s(inputs) {
    const levels = ['B_Hz', 'B2_Hz'].map((name) => inputs.number('density_dBm_Hz') + powerDb(inputs.number(name)));
    const [one, two] = levels.map((dbm) => dbmToS(dbm, megahertz(inputs)).sUnits);
    return { P_dBm: levels[0], s_units: one, P2_dBm: levels[1], s2_units: two };
  },
};

/** Probes, coils, filters and switches of the second set. */
const circuits: Readonly<Record<string, Adapter>> = {
  probe_noise(inputs) {
    const result = probeNoiseField(
      {
        effectiveHeightM: inputs.number('h_eff_m'),
        probeFarad: inputs.number('Ca_pF') * 1e-12,
        shuntFarad: inputs.number('Cs_pF') * 1e-12,
        biasOhm: inputs.number('Rb_Mohm') * 1e6,
        voltageGain: 1,
      },
      { voltsPerRootHz: inputs.number('en_nV') * 1e-9, amperesPerRootHz: inputs.number('in_fA', 0) * 1e-15 },
      megahertz(inputs),
      inputs.number('B_Hz'),
    );
    return { E_noise_dBuV_m: 20 * Math.log10(result.fieldVPerM * 1e6), Fa_equivalent_dB: result.faDb };
  },
  tuning_range(inputs) {
    const result = tuningSpan({
      inductanceH: inputs.number('L_uH') * 1e-6,
      leastF: inputs.number('Cmin_pF') * 1e-12,
      mostF: inputs.number('Cmax_pF') * 1e-12,
      strayF: inputs.number('Cs_pF', 0) * 1e-12,
      parallelF: inputs.number('Cp_pF', 0) * 1e-12,
      padF: inputs.has('Cser_pF') ? inputs.number('Cser_pF') * 1e-12 : null,
    });
    return { f_low_kHz: result.lowHz / 1e3, f_high_kHz: result.highHz / 1e3, ratio: result.ratio };
  },
  detuning(inputs) {
    const result = detuned({
      resonanceHz: inputs.number('f0_kHz') * 1e3,
      inductancePercent: inputs.number('dL_percent', 0),
      capacitancePercent: inputs.number('dC_percent', 0),
      q: inputs.number('Q'),
    });
    return {
      f_new_kHz: result.newHz / 1e3,
      shift_percent: result.shiftPercent,
      loss_at_old_frequency_dB: result.lossDb,
    };
  },
  noise_peak(inputs) {
    const result = coilNoise({
      inductanceH: inputs.number('L_uH') * 1e-6,
      resonanceHz: inputs.number('f0_kHz') * 1e3,
      q: inputs.number('Q'),
      inputVoltsPerRootHz: inputs.number('en_nV') * 1e-9,
    });
    return {
      peak_nV_rtHz: result.peakVoltsPerRootHz * 1e9,
      rise_dB: result.riseDb,
      width_kHz: result.widthHz / 1e3,
    };
  },
  rod_sensitivity(inputs) {
    const result = rodSensitivity({
      freqHz: inputs.number('f0_kHz') * 1e3,
      turns: inputs.number('turns'),
      areaM2: inputs.number('area_mm2') * 1e-6,
      permeability: inputs.number('mu_rod', 1),
      inductanceH: inputs.number('L_uH') * 1e-6,
      q: inputs.number('Q'),
      fieldVPerM: inputs.number('E_uV_per_m') * 1e-6,
      bandwidthHz: inputs.number('B_Hz'),
    });
    return {
      h_eff_mm: result.heightM * 1e3,
      V_tuned_uV: result.tunedV * 1e6,
      E_noise_uV_per_m: result.noiseFieldVPerM * 1e6,
    };
  },
  toroid_turns(inputs) {
    const wanted = inputs.number('L_uH') * 1e-6;
    const { turnsExact, turns, inductanceH } = coreTurns(wanted, inputs.number('AL_nH') * 1e-9);
    return {
      turns_exact: turnsExact,
      turns,
      L_uH: inductanceH * 1e6,
      error_percent: 100 * (inductanceH / wanted - 1),
    };
  },
  tolerance_monte_carlo(inputs) {
    const spec = specOf(inputs);
    const share = inputs.number('tol_percent') / 100;
    const result = lossSpread(
      ladder(spec),
      spec.lineOhm,
      megahertz(inputs),
      { coil: share, capacitor: share },
      { db: inputs.number('limit_dB'), side: inputs.text('limit_kind', 'max') === 'max' ? 'below' : 'above' },
      100_000,
    );
    return { mean_loss_dB: result.meanDb, std_loss_dB: result.sdDb, yield_percent: 100 * result.goodShare };
  },
  coupler_directivity(inputs) {
    const bounds = directivityBounds(inputs.number('true_return_loss_dB'), inputs.number('directivity_dB'));
    return {
      indicated_min_RL_dB: bounds.leastDb,
      indicated_max_RL_dB: bounds.mostDb,
      mainline_loss_dB: mainLineLossDb(inputs.number('coupling_dB')),
    };
  },
  switch_isolation(inputs) {
    const result = switchLosses(
      {
        offFarad: inputs.number('Coff_pF') * 1e-12,
        shuntOhm: inputs.has('Ron_shunt_ohm') ? inputs.number('Ron_shunt_ohm') : null,
        onOhm: inputs.number('Ron_series_ohm', 0),
        shuntFarad: inputs.number('Coff_shunt_pF', 0) * 1e-12,
      },
      megahertz(inputs),
    );
    return { isolation_dB: result.isolationDb, rx_insertion_loss_dB: result.receiveLossDb };
  },
};

/** Space, statistics, bearings and patterns of the second set. */
const field: Readonly<Record<string, Adapter>> = {
  optimum_horn(inputs) {
    const result = optimumHorn(inputs.number('A_mm') / 1e3, inputs.number('B_mm') / 1e3, inputs.number('f_GHz') * 1e9);
    return {
      gain_dBi: result.gainDbi,
      slant_H_mm: result.slantHM * 1e3,
      slant_E_mm: result.slantEM * 1e3,
      hpbw_E_deg: result.beamEDeg,
      hpbw_H_deg: result.beamHDeg,
    };
  },
  hydrogen_line: (inputs) => ({
    v_km_s: hydrogenVelocityMPerS(megahertz(inputs)) / 1e3,
    wavelength_cm: (100 * SPEED_OF_LIGHT_M_PER_S) / megahertz(inputs),
  }),
  radiometer(inputs) {
    const result = radiometer({
      systemK: inputs.number('Tsys_K'),
      bandwidthHz: inputs.number('B_kHz') * 1e3,
      seconds: inputs.number('tau_s'),
      differenceK: inputs.number('T_K'),
    });
    return { deltaT_K: result.scatterK, snr: result.snr, time_for_snr5_s: result.secondsForSnr5 };
  },
  radio_horizon(inputs) {
    const sum = (ratio: number): number =>
      horizonKm(inputs.number('h1_m'), ratio) + horizonKm(inputs.number('h2_m'), ratio);
    return { radio_horizon_km: sum(inputs.number('k', EFFECTIVE_EARTH)), optical_horizon_km: sum(1) };
  },
  adsb_range(inputs) {
    const result = linkRange({
      powerW: inputs.number('P_W'),
      freqHz: inputs.number('f_MHz', 1090) * 1e6,
      transmitGainDbi: inputs.number('Gt_dBi'),
      receiveGainDbi: inputs.number('Gr_dBi'),
      lossDb: inputs.number('loss_dB', 0),
      sensitivityDbm: inputs.number('sensitivity_dBm'),
      otherHeightM: inputs.number('h_aircraft_m'),
      heightM: inputs.number('h_antenna_m'),
    });
    return {
      link_range_km: result.linkKm,
      horizon_km: result.horizonKm,
      range_km: result.rangeKm,
      limit: result.limit,
    };
  },
  sign_test(inputs) {
    const result = signTest(inputs.number('wins_A'), inputs.number('wins_B'));
    return { p_two_sided: result.pTwoSided, fraction_A: result.shareA };
  },
  mcnemar(inputs) {
    const result = sameSlotsTest({
      both: inputs.number('n11'),
      onlyA: inputs.number('n10'),
      onlyB: inputs.number('n01'),
      none: inputs.number('n00'),
    });
    return {
      rate_A: result.rateA,
      rate_B: result.rateB,
      difference_percent: result.differencePercent,
      p_two_sided: result.pTwoSided,
    };
  },
  effective_sample_size(inputs) {
    const result = effectiveNumber(inputs.number('n'), inputs.number('rho'));
    return { n_eff_asymptotic: result.asymptotic, n_eff_exact: result.exact, ci_factor: result.intervalFactor };
  },
  lag1_from_fading(inputs) {
    const result = fadingSpacing({
      intervalS: inputs.number('dt_s'),
      fadingS: inputs.number('tau_s'),
      n: inputs.number('n'),
      rhoMost: inputs.number('rho_max'),
    });
    return { rho: result.rho, n_eff: result.effective, interval_for_rho_max_s: result.intervalS };
  },
  rssi_average(inputs) {
    const result = readingMeans(inputs.numbers('readings_dBm'));
    return {
      mean_dB: result.meanDb,
      mean_power_dBm: result.powerMeanDbm,
      median_dBm: result.medianDbm,
      power_minus_dB_mean: result.powerLessDb,
    };
  },
  null_width(inputs) {
    const result = nullSector(inputs.number('peak_snr_dB'), inputs.number('edge_sigma_deg'));
    return { silent_sector_deg: result.sectorDeg, bearing_sigma_deg: result.bearingSigmaDeg };
  },
  two_bearings(inputs) {
    const [a, b] = inputs.groups('stations').map((station) => {
      const [eastKm, northKm] = station.numbers('pos_km');
      return { eastKm, northKm, bearingDeg: station.number('bearing_deg') };
    });
    const result = crossingOf(a, b);
    return {
      intersects: result.intersects,
      crossing_angle_deg: result.crossingDeg,
      east_km: result.intersects ? result.eastKm : null,
      north_km: result.intersects ? result.northKm : null,
      in_front_of_both: result.intersects ? result.aheadOfBoth : null,
    };
  },
  null_steering(inputs) {
    const result = nullSteering({
      spacingM: inputs.number('spacing_m'),
      freqHz: megahertz(inputs),
      axisDeg: inputs.number('axis_deg'),
      nullDeg: inputs.number('null_deg'),
      wantedDeg: inputs.number('wanted_deg'),
    });
    return { phase_deg: result.phaseDeg, wanted_response_dB: result.wantedResponseDb };
  },
  two_ray(inputs) {
    const result = twoRay({
      freqHz: megahertz(inputs),
      heightM: inputs.number('h1_m'),
      otherHeightM: inputs.number('h2_m'),
      distanceM: inputs.number('d_m'),
      reflection: inputs.number('reflection'),
    });
    return {
      path_difference_m: result.pathDifferenceM,
      level_rel_free_space_dB: result.levelDb,
      height_step_m: result.heightStepM,
    };
  },
  substitution_gain(inputs) {
    const result = substitutionGain({
      referenceDbi: inputs.number('G_ref_dBi'),
      referenceDbm: inputs.number('P_ref_dBm'),
      testDbm: inputs.number('P_test_dBm'),
      referenceSwr: inputs.number('swr_ref', 1),
      testSwr: inputs.number('swr_test', 1),
    });
    return { realised_gain_dBi: result.realisedDbi, gain_dBi: result.gainDbi, gain_dBd: result.gainDbd };
  },
  average_repeats(inputs) {
    const result = averageTurns(
      inputs.groups('sweeps').map((sweep) => ({
        levelsDbm: sweep.numbers('levels_dBm'),
        startDbm: sweep.number('ref_start_dBm'),
        endDbm: sweep.number('ref_end_dBm'),
      })),
    );
    return { normalised_dB: result.normalisedDb, max_level_dBm: result.maximumDbm };
  },
};

/** The templates of the second set, areas 01 to 17. */
export const secondTemplates: Readonly<Record<string, Adapter>> = { ...receiving, ...circuits, ...field };
