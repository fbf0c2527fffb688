import { dish, pointingLossDb, rectangularGuide } from '@velvet-reed/core/antenna';
import { downConversion } from '@velvet-reed/core/path';
import { circularOrbit, geostationaryLook } from '@velvet-reed/core/site';
import type { Adapter } from '../inputs';

/** Area 13: satellites and microwaves. */
export const spaceTemplates: Readonly<Record<string, Adapter>> = {
  lnb(inputs) {
    const result = downConversion({
      rfHz: inputs.number('rf_MHz') * 1e6,
      oscillatorHz: inputs.number('lo_MHz') * 1e6,
      oscillatorPpm: inputs.number('lo_ppm', 0),
      systemK: inputs.number('T_sys_K'),
      gainDb: inputs.number('gain_dB'),
      bandwidthHz: inputs.number('if_bandwidth_MHz') * 1e6,
      cableLossDb: inputs.number('cable_loss_dB', 0),
      wantedDbm: inputs.number('target_dBm'),
    });
    return {
      if_MHz: result.outputHz / 1e6,
      mirrored: result.mirrored,
      if_error_kHz: result.outputErrorHz / 1e3,
      noise_density_dBm_Hz: result.noiseDbmPerHz,
      noise_total_dBm: result.noiseDbm,
      attenuator_dB: result.padDb,
    };
  },
  dish(inputs) {
    const result = dish(inputs.number('D_m'), inputs.number('f_GHz') * 1e9, inputs.number('efficiency'));
    return {
      gain_dBi: result.gainDbi,
      hpbw_deg: result.beamwidthDeg,
      pointing_loss_dB: pointingLossDb(inputs.number('error_deg', 0), result.beamwidthDeg),
    };
  },
  geo_look_angle(inputs) {
    const look = geostationaryLook(
      { latDeg: inputs.number('lat_deg'), lonDeg: inputs.number('lon_deg') },
      inputs.number('sat_lon_deg'),
    );
    if (!look.visible) return { visible: false, elevation_deg: look.elevationDeg };
    return {
      visible: true,
      azimuth_deg: look.azimuthDeg,
      elevation_deg: look.elevationDeg,
      range_km: look.rangeKm,
      skew_deg: look.skewDeg,
    };
  },
  waveguide(inputs) {
    const guide = rectangularGuide(
      inputs.number('a_mm') / 1000,
      inputs.number('b_mm') / 1000,
      inputs.number('f_GHz') * 1e9,
    );
    return {
      cutoff_GHz: guide.cutoffHz / 1e9,
      next_cutoff_GHz: guide.nextCutoffHz / 1e9,
      propagates: guide.propagates,
      quarter_free_mm: guide.quarterFreeM * 1000,
      guide_wavelength_mm: guide.propagates ? guide.guideWavelengthM * 1000 : null,
      quarter_guide_mm: guide.propagates ? guide.quarterGuideM * 1000 : null,
      attenuation_dB_m: guide.propagates ? null : guide.attenuationDbPerM,
    };
  },
  leo_pass(inputs) {
    const orbit = circularOrbit(inputs.number('altitude_km'), inputs.number('f_MHz') * 1e6, {
      elevationDeg: inputs.number('elevation_deg'),
      leastDeg: inputs.number('min_elevation_deg'),
      highestDeg: inputs.number('max_elevation_deg'),
    });
    return {
      period_min: orbit.periodS / 60,
      speed_km_s: orbit.speedKmPerS,
      slant_range_km: orbit.rangeKm,
      path_loss_dB: orbit.pathLossDb,
      path_loss_zenith_dB: orbit.pathLossZenithDb,
      doppler_Hz: orbit.dopplerHz,
      duration_s: orbit.durationS,
    };
  },
};
