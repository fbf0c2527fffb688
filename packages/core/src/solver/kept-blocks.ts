/**
 * Interactions of parts of an antenna as they were computed last, by what they are the same for. While one dimension is dragged, the parts that do not
 * move are found here. Beyond the given size the ones not used for longest go.
 */
export interface KeptBlocks {
  readonly mostBytes: number;
  readonly get: (key: string) => Float64Array | undefined;
  readonly set: (key: string, blocks: Float64Array) => void;
}

/** @param mostBytes most that is kept, bytes */
export function keptBlocks(mostBytes: number): KeptBlocks {
  const kept = new Map<string, Float64Array>();
  let bytes = 0;
  const drop = (key: string): Float64Array | undefined => {
    const blocks = kept.get(key);
    if (blocks) bytes -= blocks.byteLength;
    kept.delete(key);
    return blocks;
  };
  const set = (key: string, blocks: Float64Array): void => {
    drop(key);
    kept.set(key, blocks);
    bytes += blocks.byteLength;
    for (const oldest of kept.keys()) {
      if (bytes <= mostBytes) return;
      drop(oldest);
    }
  };
  const get = (key: string): Float64Array | undefined => {
    const blocks = drop(key);
    // the one used last goes last
    if (blocks) set(key, blocks);
    return blocks;
  };
  return { mostBytes, get, set };
}
