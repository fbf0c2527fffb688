import base from '../../jest.base.js';

export default { ...base, displayName: 'instruments', testEnvironment: 'node' };
