export default {
  projects: [
    './packages/core',
    './packages/contract',
    './packages/instruments',
    './packages/server',
    './packages/cli',
    './packages/web',
  ],
};
