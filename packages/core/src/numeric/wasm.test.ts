import { expect, test } from '@jest/globals';
import { ENTRIES_KERNEL } from '../solver/entries-wasm';
import { wasmKernel, wasmKernels } from './wasm';

const NAMES = ['turn', 'between'] as const;

test('a kernel for all is one; kernels made anew each have a memory of their own, as large as was asked for', () => {
  const once = wasmKernel(ENTRIES_KERNEL, NAMES);
  expect(once()).toBe(once());
  const another = wasmKernels(ENTRIES_KERNEL, NAMES);
  const [one, other] = [another(), another()];
  if (!one || !other) throw new Error('There is no WebAssembly here.');
  const [a, b] = [one, other].map(({ base, memory }) => new Float64Array(memory(base + 3e6), base, 4).fill(1));
  a[0] = 7;
  expect(b[0]).toBe(1);
  expect(one.memory(0).byteLength).toBeGreaterThanOrEqual(one.base + 3e6);
  // what stands there stays when more is asked for
  expect(new Float64Array(one.memory(one.base + 9e6), one.base, 4)[0]).toBe(7);
});

test('what a kernel turns by a way it turns back, and in between are sine and cosine', () => {
  const kernel = wasmKernels(ENTRIES_KERNEL, NAMES)();
  if (!kernel) throw new Error('There is no WebAssembly here.');
  const count = 6;
  const plane = 8 * count;
  const at = (index: number): number => kernel.base + index * plane;
  const view = (index: number): Float64Array => new Float64Array(kernel.memory(at(12)), at(index), count);
  // planes: ways (direct, below), shares, out (re, im), one node (four)
  const ways = [0, 0.3, 2.5, 17, 141.7, 999.1];
  view(0).set(ways);
  view(1).set(ways.map((way) => way + 1));
  view(2).set([1]);
  for (const [index, value] of [2, -3, 0.5, 4].entries()) view(5 + index).fill(value);
  const [k, factor] = [0.21, 1.7];
  kernel.call.turn(at(5), at(6), at(0), plane, k, factor);
  ways.forEach((way, i) => {
    const [c, s] = [Math.cos(k * way), Math.sin(k * way)];
    expect(view(5)[i]).toBeCloseTo(factor * (2 * c + 3 * s), 12);
    expect(view(6)[i]).toBeCloseTo(factor * (2 * s - 3 * c), 12);
  });
  kernel.call.turn(at(7), at(8), at(1), plane, k, factor);
  // both layers add up; without the one from below only the direct one is left
  for (const below of [true, false]) {
    kernel.call.between(at(3), at(5), 1, at(2), at(0), plane, k, below ? 1 : 0);
    for (let i = 0; i < count; i += 1) {
      expect(view(3)[i]).toBeCloseTo(factor * (below ? 2.5 : 2), 12);
      expect(view(4)[i]).toBeCloseTo(factor * (below ? 1 : -3), 12);
    }
  }
});

test('a text that is no kernel, or one without what is asked of it, gives none', () => {
  expect(wasmKernel('AGFzbQEAAAA=', NAMES)()).toBeUndefined();
  expect(wasmKernel('bm8ga2VybmVs', NAMES)()).toBeUndefined();
  expect(wasmKernel(ENTRIES_KERNEL, ['turn', 'upside'])()).toBeUndefined();
});
