const INCH_M = 0.0254;

/** Feet, inches and sixteenths, as on a workshop tape. */
export function inchText(lengthM: number): string {
  const sixteenths = Math.round((lengthM / INCH_M) * 16);
  const feet = Math.floor(sixteenths / 192);
  const inches = Math.floor((sixteenths % 192) / 16);
  let part = sixteenths % 16;
  let whole = 16;
  while (part > 0 && part % 2 === 0) {
    part /= 2;
    whole /= 2;
  }
  return `${feet > 0 ? `${feet} ft ` : ''}${inches}${part > 0 ? ` ${part}/${whole}` : ''} in`;
}
