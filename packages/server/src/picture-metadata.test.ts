import { deflateSync } from 'node:zlib';
import { describe, expect, test } from '@jest/globals';
import { withoutMetadata } from './picture-metadata';

const segment = (marker: number, body: Buffer): Buffer => {
  const head = Buffer.from([0xff, marker, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
};
describe('what a photo tells beside the picture', () => {
  test('JPEG: position, maker and comments go; picture, colour profile and what stands after the scan stay byte for byte', () => {
    const jfif = segment(0xe0, Buffer.from('JFIF\0\x01\x01\0\0\x48\0\x48\0\0', 'latin1'));
    const profile = segment(0xe2, Buffer.from('ICC_PROFILE\0\x01\x01profile', 'latin1'));
    const table = segment(0xdb, Buffer.alloc(65, 1));
    const scan = Buffer.concat([
      segment(0xda, Buffer.from([1, 1, 0, 0, 63, 0])),
      Buffer.from([1, 2, 0xff, 0, 3, 0xff, 0xd9]),
    ]);
    const told = [
      segment(0xe1, Buffer.from('Exif\0\0MM\0*GPSLatitude 50.2', 'latin1')),
      segment(0xe1, Buffer.from('http://ns.adobe.com/xap/1.0/\0<x:xmpmeta/>', 'latin1')),
      segment(0xe2, Buffer.from('MPF\0second picture', 'latin1')),
      segment(0xed, Buffer.from('Photoshop 3.0\0city', 'latin1')),
      segment(0xfe, Buffer.from('taken at home', 'latin1')),
    ];
    const start = Buffer.from([0xff, 0xd8]);
    const clean = Buffer.concat([start, jfif, profile, table, scan]);
    expect(withoutMetadata(Buffer.concat([start, jfif, ...told, profile, table, Buffer.from([0xff]), scan]))).toEqual(
      Buffer.concat([start, jfif, profile, table, Buffer.from([0xff]), scan]),
    );
    expect(withoutMetadata(clean)).toEqual(clean);
  });
  test('positions stayed between two scans and in the pictures behind the end: a picture of several scans keeps its scans, and nothing else', () => {
    const start = Buffer.from([0xff, 0xd8]);
    const scan = (...coded: number[]): Buffer =>
      Buffer.concat([segment(0xda, Buffer.from([1, 1, 0, 0, 63, 0])), Buffer.from(coded)]);
    const place = segment(0xe1, Buffer.from('Exif\0\0MM\0*GPSLatitude 50.2', 'latin1'));
    // stuffed bytes and restarts belong to the coded picture
    const [first, second] = [scan(1, 0xff, 0, 2, 0xff, 0xd3, 3), scan(9, 9)];
    const end = Buffer.from([0xff, 0xd9]);
    const behind = Buffer.concat([start, place, scan(7), end]);
    const table = segment(0xc4, Buffer.alloc(20, 1));
    expect(withoutMetadata(Buffer.concat([start, place, first, place, table, second, end, behind]))).toEqual(
      Buffer.concat([start, first, table, second, end]),
    );
  });
  test('PNG: texts, time and EXIF go, the rest stays', () => {
    const chunk = (kind: string, body: Buffer): Buffer => {
      const named = Buffer.concat([Buffer.from(kind, 'latin1'), body]);
      const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
      length.writeUInt32BE(body.length);
      sum.writeUInt32BE(0); // the sum of a chunk is copied, not read
      return Buffer.concat([length, named, sum]);
    };
    const start = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
    const head = chunk('IHDR', Buffer.from([0, 0, 0, 1, 0, 0, 0, 1, 8, 0, 0, 0, 0]));
    const data = chunk('IDAT', deflateSync(Buffer.from([0, 128])));
    const end = chunk('IEND', Buffer.alloc(0));
    const told = [
      chunk('tEXt', Buffer.from('Author\0me')),
      chunk('eXIf', Buffer.from('MM\0*')),
      chunk('tIME', Buffer.alloc(7)),
      chunk('iTXt', Buffer.from('x')),
    ];
    expect(withoutMetadata(Buffer.concat([start, head, ...told, data, end]))).toEqual(
      Buffer.concat([start, head, data, end]),
    );
  });
  test('a picture that is cut, or none, ends and never throws', () => {
    for (const bytes of [
      Buffer.from([0xff, 0xd8, 0xff, 0xe1, 0xff, 0xff]),
      Buffer.from([0xff, 0xd8]),
      Buffer.from([0x89, 0x50, 0x4e, 0x47]),
      Buffer.from('text'),
    ])
      expect(withoutMetadata(bytes).length).toBeLessThanOrEqual(bytes.length);
  });
});
