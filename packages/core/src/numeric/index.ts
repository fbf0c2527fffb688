export { add, angleDeg, type Complex, complex, divide, fromPolar, magnitude, multiply, subtract } from './complex';
