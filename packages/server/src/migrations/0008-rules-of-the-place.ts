import { additions } from './additions';

/** Two more rules of a place: nothing driven into the ground, permission asked first. */
export const rulesOfThePlace = additions(
  '0008-rules-of-the-place',
  {},
  {
    stations: [
      ['noStakes', 'INTEGER NOT NULL DEFAULT 0', 'false'],
      ['askFirst', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ],
  },
);
