export { bearingFix, cancellation, combining, ELLIPSE_95, figureEightNull } from './fix';
export { crossingOf, nullSector, nullSteering } from './pair';
export { averageTurns, checkedGain, substitutionGain, twoRay } from './range';
export { farField, patternFigures, reflectionRipple, threeAntennas } from './pattern';
