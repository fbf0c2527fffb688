const PNG_START = 8;
/** Chunks of a PNG that say something beside the picture: texts, time, EXIF (W3C PNG, third edition, 11.3). */
const PNG_TOLD = new Set(['tEXt', 'zTXt', 'iTXt', 'tIME', 'eXIf']);
/** Segments of a JPEG that the picture needs: JFIF, colour profile (ICC in APP2), Adobe's colours (ITU-T T.81, annex B). */
const JPEG_KEPT_APPS = new Set([0xe0, 0xe2, 0xee]);
const COMMENT = 0xfe;
const START_OF_SCAN = 0xda;
const END_OF_IMAGE = 0xd9;

function pngWithout(bytes: Buffer): Buffer {
  const kept = [bytes.subarray(0, PNG_START)];
  for (let at = PNG_START; at + 12 <= bytes.length;) {
    const end = at + 12 + bytes.readUInt32BE(at);
    if (!PNG_TOLD.has(bytes.toString('latin1', at + 4, at + 8))) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return Buffer.concat(kept);
}

/** Where the coded picture behind a scan's head ends: at the next marker that is no restart and no stuffed byte (ITU-T T.81, B.1.1.5). */
function scanEnd(bytes: Buffer, from: number): number {
  for (let at = from; at + 1 < bytes.length; at += 1) {
    const next = bytes[at + 1];
    if (bytes[at] === 0xff && next !== 0 && next !== 0xff && (next < 0xd0 || next > 0xd7)) return at;
  }
  return bytes.length;
}

/** Segment by segment to the end of the picture: what stands between scans is looked at, too, and what hangs on behind the end (further pictures, with their own places) goes. */
function jpegWithout(bytes: Buffer): Buffer {
  const kept = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 1 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1];
    if (marker === END_OF_IMAGE) return Buffer.concat([...kept, bytes.subarray(at, at + 2)]);
    // a marker may be preceded by any number of fill bytes
    if (marker === 0xff) {
      kept.push(bytes.subarray(at, at + 1));
      at += 1;
      continue;
    }
    if (at + 4 > bytes.length) break;
    const head = at + 2 + bytes.readUInt16BE(at + 2);
    const end = marker === START_OF_SCAN ? scanEnd(bytes, head) : head;
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
