export { bearingFix, cancellation, combining, ELLIPSE_95, figureEightNull } from './fix';
export { farField, patternFigures, reflectionRipple, threeAntennas } from './pattern';
