import base from '../../jest.base.js';

export default { ...base, displayName: 'station', testEnvironment: 'node' };
