export { DIPOLE_GAIN_DBI, SPEED_OF_LIGHT_M_PER_S } from './constants';
export { dbmToVoltsRms, powerDb, powerRatio, sumPowersDb, voltsRmsToDbm, wattsToDbm } from './decibel';
export {
  bandText,
  inDb,
  capital,
  countText,
  numberText,
  listText,
  fixed,
  freeName,
  frequencyText,
  lengthText,
  midSentence,
  plain,
  showField,
  showFrequency,
  showLength,
  type ShownQuantity,
  showPower,
  significant,
} from './format';
export { inchText } from './inches';
export { type Dimension, parseQuantity } from './quantity';
export { dbmToDbMicrovolt, dbmToS, emfToDbm, S_UNIT_DB, sToDbm } from './s-meter';
export { bandSlipOf, levelSlipOf, slipOf, spanSlipOf } from './slip';
