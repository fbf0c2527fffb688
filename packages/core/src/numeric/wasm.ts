// WebAssembly's types live with DOM and Node, neither of which the core has: the little that is used is declared here
// eslint-disable-next-line @typescript-eslint/no-namespace
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array);
  }
  class Instance {
    constructor(module: Module, imports?: object);
    readonly exports: Record<string, unknown>;
  }
  class Memory {
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  }
}

const PAGE_BYTES = 65536;
const BASE64 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

function decode(text: string): Uint8Array {
  const clean = text.replace(/=+$/, '');
  const out = new Uint8Array(Math.floor((clean.length * 3) / 4));
  let bits = 0;
  let held = 0;
  let at = 0;
  for (const letter of clean) {
    bits = ((bits << 6) | BASE64.indexOf(letter)) & 0xffffff;
    held += 6;
    if (held >= 8) {
      held -= 8;
      out[at] = (bits >> held) & 0xff;
      at += 1;
    }
  }
  return out;
}

/** A function of a kernel: numbers in, a number out (or nothing). */
type KernelCall = (...args: number[]) => number;
const isCall = (value: unknown): value is KernelCall => typeof value === 'function';

/** A compiled kernel: its functions, and its memory as far as it has been asked for. */
export interface WasmKernel<Name extends string> {
  readonly call: Readonly<Record<Name, KernelCall>>;
  /** First byte that is free for data. */
  readonly base: number;
  /** The memory with at least so many bytes; views of an earlier answer may be void. */
  readonly memory: (bytes: number) => ArrayBuffer;
}

/**
 * Compiles a kernel when it is first asked for.
 * @param text the module in base64; it exports `memory`, `base` and the named functions
 * @returns a function that gives the kernel anew each time, with a memory of its own; undefined where there is no WebAssembly with SIMD
 */
export function wasmKernels<Name extends string>(
  text: string,
  names: readonly Name[],
): () => WasmKernel<Name> | undefined {
  let compiled: WebAssembly.Module | undefined;
  const isWhole = (value: Partial<Record<Name, KernelCall>>): value is Record<Name, KernelCall> =>
    names.every((name) => value[name] !== undefined);
  return () => {
    try {
      compiled ??= new WebAssembly.Module(decode(text));
      const { exports } = new WebAssembly.Instance(compiled);
      const { memory, base } = exports;
      if (!(memory instanceof WebAssembly.Memory) || !isCall(base)) return undefined;
      const call: Partial<Record<Name, KernelCall>> = {};
      for (const name of names) {
        const one = exports[name];
        if (!isCall(one)) return undefined;
        call[name] = one;
      }
      if (!isWhole(call)) return undefined;
      return {
        call,
        base: base(),
        memory(bytes) {
          const have = memory.buffer.byteLength;
          if (bytes > have) memory.grow(Math.ceil((bytes - have) / PAGE_BYTES));
          return memory.buffer;
        },
      };
    } catch {
      return undefined;
    }
  };
}

/** The same with one kernel for all who ask: what it computes does not stay in its memory. */
export function wasmKernel<Name extends string>(
  text: string,
  names: readonly Name[],
): () => WasmKernel<Name> | undefined {
  const another = wasmKernels(text, names);
  let made: { readonly kernel: WasmKernel<Name> | undefined } | undefined;
  return () => (made ??= { kernel: another() }).kernel;
}
