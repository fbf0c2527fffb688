export default {
  testTimeout: 30_000,
  projects: [
    './packages/core',
    './packages/contract',
    './packages/instruments',
    './packages/server',
    './packages/cli',
    './packages/web',
  ],
};
