/** Made-up fixes that test and bench try: places of the turns, error of an axis in degrees, and where the source lies; near a station and at a shallow cut, too. */
export const FIX_CASES: readonly (readonly [
  name: string,
  places: readonly (readonly [number, number])[],
  sigmaDeg: number,
  /** The source lies within this of `at`, either way. */
  spread: number,
  at: readonly [number, number],
])[] = [
  [
    'three round it',
    [
      [-100, -60],
      [110, -50],
      [10, 120],
    ],
    1,
    20,
    [0, 0],
  ],
  [
    'three, 3° each',
    [
      [-100, -60],
      [110, -50],
      [10, 120],
    ],
    3,
    20,
    [0, 0],
  ],
  [
    'two, square',
    [
      [-100, 0],
      [0, -100],
    ],
    3,
    20,
    [0, 0],
  ],
  [
    'two, shallow',
    [
      [-100, 10],
      [-100, -10],
    ],
    2,
    10,
    [0, 0],
  ],
  [
    'near a station',
    [
      [-100, 0],
      [0, -8],
      [60, 60],
    ],
    3,
    2,
    [0, 0],
  ],
  [
    'very near a station',
    [
      [-100, 0],
      [0, -4],
      [60, 60],
    ],
    5,
    1,
    [0, 0],
  ],
  [
    'three in a row',
    [
      [-60, -50],
      [0, -52],
      [60, -50],
    ],
    3,
    10,
    [0, 40],
  ],
  [
    'far behind a short base',
    [
      [-10, 0],
      [10, 0],
      [0, 6],
    ],
    2,
    10,
    [0, 90],
  ],
];
