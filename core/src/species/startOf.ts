import type { StartValues } from './startValues';
import type { SpeciesValues } from './species';
import { speciesLibrary } from './speciesLibrary';

/** How a species that no table knows is started: orthodox seed that needs nothing. */
const plain: StartValues = {
  storage: 'orthodox',
  sigmaDays: { median: 700, sdLog: 0.8 },
  thicknessMm: 3,
  protocols: [{ school: 'indoors', phases: [] }],
  radicleDd: { median: 90, sdLog: 0.6 },
  rootHabit: 'heart',
  sturdinessMost: 8,
  nodules: 'none',
  cuttings: {},
  layer: null,
  leafWords: '',
  cautions: [],
};

/** How a species is started: its own values, else the library's for its code, else plain ones. */
export function startOf({
  code,
  values,
}: {
  code: string;
  values: Pick<SpeciesValues, 'start'>;
}): StartValues {
  return values.start ?? speciesLibrary.find((s) => s.code === code)?.values.start ?? plain;
}
