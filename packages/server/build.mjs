import { build } from 'esbuild';

await build({
  entryPoints: ['src/main.ts', 'src/file-worker.ts'],
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  // our own workspace TypeScript is bundled, everything from node_modules stays external: also what the core depends on, so the server names
  // satellite.js among its own packages, or it is not found from here
  plugins: [
    {
      name: 'external-packages',
      setup(build_) {
        build_.onResolve({ filter: /^[^./]/ }, (args) =>
          args.kind === 'entry-point' || args.path.startsWith('@velvet-reed/')
            ? undefined
            : { path: args.path, external: true },
        );
      },
    },
  ],
});
