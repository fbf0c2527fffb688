import { additions } from './additions';

/** Figures of splitters, limiters, feeds and converters; plugs of stages and ends; the box of adapters. */
export const stagesAndPlugs = additions(
  '0006-stages-and-plugs',
  {},
  {
    stations: [['adapterBox', "TEXT NOT NULL DEFAULT ''", '""']],
    paths: ['antennaConnector', 'receiverConnector'].map((name) => [name, "TEXT NOT NULL DEFAULT ''", '""'] as const),
    pathStages: [
      ['figures', "JSON NOT NULL DEFAULT '{}'", '{}'],
      ['connectorIn', "TEXT NOT NULL DEFAULT ''", '""'],
      ['connectorOut', "TEXT NOT NULL DEFAULT ''", '""'],
    ],
  },
);
