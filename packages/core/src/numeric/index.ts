export { add, angleDeg, type Complex, complex, divide, fromPolar, magnitude, multiply, subtract } from './complex';
export { median } from './statistics';
