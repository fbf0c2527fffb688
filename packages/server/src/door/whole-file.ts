import { closeSync, fsyncSync, openSync, renameSync, writeSync } from 'node:fs';

/** Writes a file whole or not at all, readable by its owner alone: a power cut leaves the old one or the new one. */
export function writeWhole(file: string, text: string): void {
  const half = `${file}.part`;
  const handle = openSync(half, 'w', 0o600);
  try {
    writeSync(handle, text);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(half, file);
}
