import type { QueryInterface, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug, type RunnableMigration } from 'umzug';
import { firstStation } from './migrations/0001-first-station';
import { dimensionsByName } from './migrations/0002-dimensions-by-name';
import { placeAndWishes } from './migrations/0003-place-and-wishes';
import { benchRecords } from './migrations/0004-bench-records';
import { noiseLogAndShelf } from './migrations/0005-noise-log-and-shelf';
import { stagesAndPlugs } from './migrations/0006-stages-and-plugs';

export type Migration = RunnableMigration<QueryInterface>;

/** A static list, not a glob: it survives bundling. */
export function migrator(sequelize: Sequelize): Umzug<QueryInterface> {
  return new Umzug<QueryInterface>({
    migrations: [firstStation, dimensionsByName, placeAndWishes, benchRecords, noiseLogAndShelf, stagesAndPlugs],
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
}
