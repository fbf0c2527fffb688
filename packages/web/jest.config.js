import base from '../../jest.base.js';

export default {
  ...base,
  displayName: 'web',
  testEnvironment: 'jsdom',
  setupFilesAfterEnv: ['<rootDir>/src/test-setup.ts'],
  moduleNameMapper: { '\\.css$': '<rootDir>/src/test-stub.ts', '\\?url$': '<rootDir>/src/test-stub.ts' },
};
