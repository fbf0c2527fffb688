import base from '../../jest.base.js';

export default { ...base, displayName: 'cli', testEnvironment: 'node' };
