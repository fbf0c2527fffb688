export { padding } from './padding';
export { paddingChoices, preferredCapacitors } from './preferred';
export { coilFromTwoResonances, tunedCoil } from './tuned-coil';
export { couplingWinding, rodPermeability, solenoid, tunedCircuit, tuningRange, windingFor } from './winding';
