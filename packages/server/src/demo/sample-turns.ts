/** Where the battery charger of the demo stands, m east and north of the middle of the plan. Made up. */
export const CHARGER: readonly [x: number, y: number] = [31, 22];
const PLACES = [
  { name: 'By the hut', xM: 4, yM: -6 },
  { name: 'Under the mast', xM: -17, yM: 4 },
] as const;
const STEP_DEG = 15;
const [TOP_DBM, DEPTH_DB] = [-64, 24];

/** A repeatable scatter of about half a dB. */
const scatter = (i: number, place: number): number => 0.5 * Math.sin(7.3 * i + 3.1 * place + 1.7);

/** Two turns of the loop at two places, with the charger at the end of both axes. */
export const turnsOfTheLoop = (atMs: number, freqHz: number) =>
  PLACES.map(({ name, xM, yM }, place) => {
    const bearing = (Math.atan2(CHARGER[0] - xM, CHARGER[1] - yM) * 180) / Math.PI;
    return {
      ...{
        name,
        xM,
        yM,
        freqHz,
        atMs: atMs + place * 900_000,
        declinationDeg: 0,
        meaning: 'null' as const,
        sigmaDeg: 3,
      },
      readings: Array.from({ length: 180 / STEP_DEG }, (_, i): [number, number] => {
        const turn = ((i * STEP_DEG - bearing) * Math.PI) / 180;
        const level = TOP_DBM + 10 * Math.log10(Math.sin(turn) ** 2 + 10 ** (-DEPTH_DB / 10)) + scatter(i, place);
        return [i * STEP_DEG, Number(level.toFixed(1))];
      }),
      ...{ sense: [], antennaId: null, conditions: '' },
    };
  });
