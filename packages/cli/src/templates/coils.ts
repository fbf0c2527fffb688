import {
  bootstrapLossDb,
  lossyCore,
  magnetisingH,
  transformedMatch,
  transformerAt,
  transformerCornerHz,
  turnsForLoss,
} from '@velvet-reed/core/line';
import { complex } from '@velvet-reed/core/numeric';
import {
  couplingWinding,
  preferredCapacitors,
  rodPermeability,
  solenoid,
  tunedCircuit,
  tuningRange,
} from '@velvet-reed/core/resonator';
import { CaseInputError, type Adapter } from '../inputs';

/** Areas 03 and 09: transformers, coils and rods. */
export const coilTemplates: Readonly<Record<string, Adapter>> = {
  magnetising_corner(inputs) {
    const transformer = {
      inductanceFactorH: inputs.number('AL_nH') * 1e-9,
      primaryTurns: inputs.number('primary_turns'),
      ratio: inputs.number('ratio'),
      sourceOhm: inputs.number('Rs_ohm'),
      loadOhm: inputs.number('RL_ohm'),
    };
    const first = transformerAt(transformer, inputs.number('f1_MHz') * 1e6);
    return {
      Lm_uH: magnetisingH(transformer.inductanceFactorH, transformer.primaryTurns) * 1e6,
      corner_3dB_MHz: transformerCornerHz(transformer) / 1e6,
      loss_f1_dB: first.lossDb,
      loss_f2_dB: transformerAt(transformer, inputs.number('f2_MHz') * 1e6).lossDb,
      swr_f1: first.swr,
    };
  },
  turns_for_loss(inputs) {
    const result = turnsForLoss({
      sourceOhm: inputs.number('Rs_ohm'),
      lowestHz: inputs.number('f_low_MHz') * 1e6,
      inductanceFactorH: inputs.number('AL_nH') * 1e-9,
      mostLossDb: inputs.number('max_loss_dB'),
    });
    return { L_required_uH: result.requiredH * 1e6, turns: result.turns, loss_with_turns_dB: result.lossDb };
  },
  lossy_core(inputs) {
    const result = lossyCore({
      freqHz: inputs.number('f_MHz') * 1e6,
      turns: inputs.number('turns'),
      coreConstantPerM: inputs.number('le_over_Ae_per_mm') * 1000,
      permeability: inputs.number('mu_real'),
      lossPermeability: inputs.number('mu_imag'),
      lineOhm: inputs.number('Rs_ohm'),
    });
    return {
      Rser_ohm: result.seriesOhm.re,
      Xser_ohm: result.seriesOhm.im,
      Rp_ohm: result.parallelOhm,
      Lp_uH: result.parallelH * 1e6,
      insertion_loss_dB: result.lossDb,
      core_power_percent_of_available: result.coreShare * 100,
    };
  },
  transformer_match(inputs) {
    const result = transformedMatch(
      complex(inputs.number('R_ohm'), inputs.number('X_ohm')),
      inputs.number('ratio'),
      inputs.number('Z0_ohm', 50),
    );
    return {
      R_in_ohm: result.seen.re,
      X_in_ohm: result.seen.im,
      swr: result.swr,
      mismatch_loss_dB: result.lossDb,
      mismatch_loss_without_dB: result.withoutDb,
    };
  },
  ruthroff_4to1: (inputs) => ({ insertion_loss_dB: bootstrapLossDb(inputs.number('line_wavelengths')) }),
  solenoid(inputs) {
    const result = solenoid({
      diameterM: inputs.number('D_mm') / 1000,
      lengthM: inputs.number('l_mm') / 1000,
      turns: inputs.number('turns'),
    });
    return { L_nagaoka_uH: result.inductanceH * 1e6, K_L: result.form, L_wheeler_uH: result.wheelerH * 1e6 };
  },
  rod_permeability(inputs) {
    const rod = rodPermeability(inputs.number('length_mm') / inputs.number('diameter_mm'), inputs.number('mu_i'));
    return { demag_N: rod.demagnetisation, mu_rod: rod.permeability };
  },
  tuned_circuit(inputs) {
    const result = tunedCircuit(inputs.number('L_uH') * 1e-6, inputs.number('C_pF') * 1e-12, inputs.number('Q'));
    return {
      f0_kHz: result.resonanceHz / 1e3,
      Rp_kohm: result.parallelOhm / 1e3,
      bandwidth_kHz: result.bandwidthHz / 1e3,
      magnification: result.magnification,
    };
  },
  tuning_design(inputs) {
    const range = tuningRange({
      leastF: inputs.number('Cmin_pF') * 1e-12,
      mostF: inputs.number('Cmax_pF') * 1e-12,
      strayF: inputs.number('Cs_pF', 0) * 1e-12,
      lowHz: inputs.number('f_low_kHz') * 1e3,
      highHz: inputs.number('f_high_kHz') * 1e3,
    });
    return range.possible
      ? { possible: true, Cp_pF: range.parallelF * 1e12, L_uH: range.inductanceH * 1e6, bands: 1, bands_needed: 1 }
      : { possible: false, Cp_pF: null, L_uH: null, bands: range.bands, bands_needed: range.bands };
  },
  preferred_capacitors(inputs) {
    const series = inputs.text('series');
    if (series !== 'E12' && series !== 'E24')
      throw new CaseInputError('The series must be E12 or E24. Correct the case.');
    const { single, pair } = preferredCapacitors(inputs.number('target_pF') * 1e-12, series);
    const pf = (farad: number): number => Number((farad * 1e12).toPrecision(12));
    return {
      single_pF: pf(single.sumF),
      single_error_percent: single.error * 100,
      pair_pF: pair.parts.map(pf),
      pair_sum_pF: pf(pair.sumF),
      pair_error_percent: pair.error * 100,
    };
  },
  coupling_winding(inputs) {
    const result = couplingWinding({
      freqHz: inputs.number('f0_kHz') * 1e3,
      inductanceH: inputs.number('L_uH') * 1e-6,
      q: inputs.number('Q'),
      turns: inputs.number('N1'),
      loadOhm: inputs.number('RL_ohm'),
    });
    return {
      turns_ratio: result.turnsRatio,
      N2: result.couplingTurns,
      loaded_Q: result.loadedQ,
      mismatch_loss_dB: result.mismatchLossDb,
    };
  },
};
