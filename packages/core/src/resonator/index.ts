export { padding } from './padding';
export { paddingChoices, preferredCapacitors } from './preferred';
export { coilFromTwoResonances, tunedCoil } from './tuned-coil';
export {
  coreTurns,
  couplingWinding,
  rodPermeability,
  solenoid,
  tunedCircuit,
  tuningRange,
  windingFor,
} from './winding';
export { coilNoise, detuned, rodSensitivity, tuningSpan } from './detuning';
