const PNG_START = 8;
/** Chunks of a PNG that say something beside the picture: texts, time, EXIF (W3C PNG, third edition, 11.3). */
const PNG_TOLD = new Set(['tEXt', 'zTXt', 'iTXt', 'tIME', 'eXIf']);
/** Segments of a JPEG that the picture needs: JFIF, colour profile (ICC in APP2), Adobe's colours (ITU-T T.81, annex B). */
const JPEG_KEPT_APPS = new Set([0xe0, 0xe2, 0xee]);
const COMMENT = 0xfe;
const START_OF_SCAN = 0xda;

function pngWithout(bytes: Buffer): Buffer {
  const kept = [bytes.subarray(0, PNG_START)];
  for (let at = PNG_START; at + 12 <= bytes.length;) {
    const end = at + 12 + bytes.readUInt32BE(at);
    if (!PNG_TOLD.has(bytes.toString('latin1', at + 4, at + 8))) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return Buffer.concat(kept);
}

function jpegWithout(bytes: Buffer): Buffer {
  const kept = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== START_OF_SCAN) {
    const marker = bytes[at + 1];
    // a marker may be preceded by any number of fill bytes
    const end = marker === 0xff ? at + 1 : at + 2 + bytes.readUInt16BE(at + 2);
    const told = marker === COMMENT || (marker >= 0xe0 && marker <= 0xef && !JPEG_KEPT_APPS.has(marker));
    const profile = marker !== 0xe2 || bytes.toString('latin1', at + 4, at + 15) === 'ICC_PROFILE';
    if (!told && profile) kept.push(bytes.subarray(at, end));
    at = end;
  }
  kept.push(bytes.subarray(at));
  return Buffer.concat(kept);
}

/** A PNG or JPEG without what it tells beside the picture: where and when it was taken, by which device, comments. Other bytes come back as they are. */
export function withoutMetadata(bytes: Buffer): Buffer {
  if (bytes[0] === 0x89 && bytes[1] === 0x50) return pngWithout(bytes);
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return jpegWithout(bytes);
  return bytes;
}
