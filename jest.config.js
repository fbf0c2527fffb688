export default {
  testTimeout: 30_000,
  // on two cores the usual number of workers is one, and half of the machine waits
  maxWorkers: '100%',
  projects: [
    './packages/core',
    './packages/contract',
    './packages/station',
    './packages/instruments',
    './packages/server',
    './packages/cli',
    './packages/web',
  ],
};
