import base from '../../jest.base.js';

export default { ...base, displayName: 'contract', testEnvironment: 'node' };
