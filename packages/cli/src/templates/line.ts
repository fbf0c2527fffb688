import {
  antennaToShack,
  attenuationDbPer100m,
  chokeRejection,
  electricalLengthM,
  fitLineLoss,
  impedanceOf,
  lineLoss,
  type LineSection,
  lossUnderSwr,
  mismatchLossDb,
  reflectionOf,
  renormalise,
  returnLossDb,
  shackToAntenna,
  swrOf,
  velocityFactorFromStub,
} from '@velvet-reed/core/line';
import { angleDeg, complex, fromPolar, magnitude } from '@velvet-reed/core/numeric';
import {
  correctReading,
  IDEAL_STANDARDS,
  interpolationError,
  solveErrorTerms,
  standardReflections,
  timeDomainReach,
} from '@velvet-reed/core/sweep';
import type { Adapter, Inputs } from '../inputs';

const section = (inputs: Inputs): LineSection => ({
  impedanceOhm: inputs.number('Z0_ohm'),
  lengthM: inputs.number('length_m'),
  velocityFactor: inputs.number('vf'),
  lossDbPer100m: inputs.number('loss_dB_per_100m'),
  freqHz: inputs.number('f_MHz') * 1e6,
});

/** Areas 01 and 02: reflection, calibration, coaxial line. */
export const lineTemplates: Readonly<Record<string, Adapter>> = {
  reflection_from_impedance(inputs) {
    const gamma = reflectionOf(complex(inputs.number('R_ohm'), inputs.number('X_ohm')), inputs.number('Z0_ohm', 50));
    const size = magnitude(gamma);
    return {
      gamma_mag: size,
      gamma_deg: angleDeg(gamma),
      swr: swrOf(size),
      return_loss_dB: returnLossDb(size),
      mismatch_loss_dB: mismatchLossDb(size),
    };
  },
  renormalise(inputs) {
    const from = inputs.number('Z_from_ohm');
    const to = inputs.number('Z_to_ohm');
    const measured = fromPolar(inputs.number('gamma_mag'), inputs.number('gamma_deg'));
    const gamma = renormalise(measured, from, to);
    const z = impedanceOf(measured, from);
    return {
      R_ohm: z?.re ?? null,
      X_ohm: z?.im ?? null,
      gamma_mag: magnitude(gamma),
      gamma_deg: angleDeg(gamma),
      swr: swrOf(magnitude(gamma)),
    };
  },
  antenna_to_shack(inputs) {
    const result = antennaToShack(complex(inputs.number('R_ohm'), inputs.number('X_ohm')), section(inputs));
    return {
      swr_antenna: result.swrAntenna,
      gamma_shack_mag: magnitude(result.gammaShack),
      gamma_shack_deg: angleDeg(result.gammaShack),
      swr_shack: result.swrShack,
      return_loss_shack_dB: returnLossDb(magnitude(result.gammaShack)),
      R_shack_ohm: result.impedanceShack?.re ?? null,
      X_shack_ohm: result.impedanceShack?.im ?? null,
    };
  },
  deembed_line(inputs) {
    const result = shackToAntenna(
      fromPolar(inputs.number('gamma_shack_mag'), inputs.number('gamma_shack_deg')),
      section(inputs),
    );
    return {
      physical: result.physical,
      swr_shack: result.swrShack,
      swr_antenna: result.swrAntenna,
      R_ant_ohm: result.impedanceAntenna?.re ?? null,
      X_ant_ohm: result.impedanceAntenna?.im ?? null,
      gamma_ant_mag: magnitude(result.gammaAntenna),
      gamma_ant_deg: angleDeg(result.gammaAntenna),
    };
  },
  osl_calibration(inputs) {
    const raw = { open: inputs.pair('raw_open'), short: inputs.pair('raw_short'), load: inputs.pair('raw_load') };
    const dut = inputs.pair('raw_dut');
    const freqHz = inputs.number('f_MHz') * 1e6;
    const kit = inputs.group('standards');
    const defined = standardReflections(
      {
        openFarad: kit.number('open_C0_fF', 0) * 1e-15,
        openDelayS: kit.number('open_delay_ps', 0) * 1e-12,
        shortHenry: kit.number('short_L_pH', 0) * 1e-12,
        shortDelayS: kit.number('short_delay_ps', 0) * 1e-12,
        loadOhm: kit.number('load_R_ohm', 50),
      },
      freqHz,
    );
    const gamma = correctReading(dut, solveErrorTerms(raw, defined));
    const naive = correctReading(dut, solveErrorTerms(raw, standardReflections(IDEAL_STANDARDS, freqHz)));
    return {
      gamma_mag: magnitude(gamma),
      gamma_deg: angleDeg(gamma),
      swr: swrOf(magnitude(gamma)),
      gamma_deg_if_standards_ideal: angleDeg(naive),
      gamma_mag_if_standards_ideal: magnitude(naive),
    };
  },
  cal_interpolation_error(inputs) {
    const result = interpolationError(
      inputs.number('f_start_MHz') * 1e6,
      inputs.number('f_stop_MHz') * 1e6,
      inputs.number('points'),
      inputs.number('cable_m'),
      inputs.number('vf'),
    );
    return {
      phase_step_deg: result.phaseStepDeg,
      worst_error_percent: result.worstError * 100,
      error_floor_dB: result.floorDb,
    };
  },
  tdr_from_sweep(inputs) {
    const result = timeDomainReach(
      inputs.number('f_start_MHz') * 1e6,
      inputs.number('f_stop_MHz') * 1e6,
      inputs.number('points'),
      inputs.number('vf'),
      inputs.number('two_way_delay_ns') * 1e-9,
    );
    return {
      step_MHz: result.stepHz / 1e6,
      resolution_m: result.resolutionM,
      max_distance_m: result.maxDistanceM,
      distance_m: result.distanceM,
    };
  },
  line_loss(inputs) {
    const result = lineLoss(
      { k1: inputs.number('k1'), k2: inputs.number('k2') },
      inputs.number('f_MHz') * 1e6,
      inputs.number('length_m'),
      inputs.number('vf'),
    );
    return {
      loss_dB: result.lossDb,
      power_out_percent: result.powerOutRatio * 100,
      wavelengths: result.wavelengths,
      delay_ns: result.delayS * 1e9,
    };
  },
  fit_k1_k2(inputs) {
    const fit = fitLineLoss(
      inputs.numbers('f_MHz').map((f) => f * 1e6),
      inputs.numbers('atten_dB_per_100m'),
    );
    return {
      k1: fit.k1,
      k2: fit.k2,
      atten_query_dB_per_100m: attenuationDbPer100m(fit, inputs.number('f_query_MHz') * 1e6),
      worst_fit_error_percent: fit.worstError * 100,
    };
  },
  loss_under_swr(inputs) {
    const result = lossUnderSwr(
      inputs.number('matched_loss_dB'),
      complex(inputs.number('R_ohm'), inputs.number('X_ohm')),
      inputs.number('Z0_ohm', 50),
    );
    return {
      total_loss_dB: result.totalLossDb,
      additional_loss_dB: result.additionalLossDb,
      swr_load: result.swrLoad,
      swr_input: result.swrInput,
    };
  },
  choke_rejection(inputs) {
    const { impedance, rejectionDb } = chokeRejection(
      {
        parallelOhm: inputs.number('Rp_ohm'),
        inductanceH: inputs.number('L_uH') * 1e-6,
        capacitanceF: inputs.number('C_pF') * 1e-12,
      },
      complex(inputs.number('Rcm_ohm'), inputs.number('Xcm_ohm')),
      inputs.number('f_MHz') * 1e6,
    );
    return {
      Zchoke_R_ohm: impedance.re,
      Zchoke_X_ohm: impedance.im,
      Zchoke_mag_ohm: magnitude(impedance),
      rejection_dB: rejectionDb,
    };
  },
  velocity_and_stub(inputs) {
    return {
      length_m: electricalLengthM(
        inputs.number('wavelength_fraction'),
        inputs.number('vf'),
        inputs.number('f_MHz') * 1e6,
      ),
      vf_measured: velocityFactorFromStub(inputs.number('sample_length_m'), inputs.number('sample_min_MHz') * 1e6),
    };
  },
};
