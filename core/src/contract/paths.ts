import { archivePaths } from './archive/paths';
import { peoplePaths } from './people/paths';
import { yardPaths } from './yard/paths';
import { waterPaths } from './water/paths';
import { seedPaths } from './seed/paths';
import { lotsPaths } from './lots/paths';
import { rootsPaths } from './roots/paths';
import { growingPaths } from './growing/paths';
import { weatherPaths } from './weather/paths';
import { todayPaths } from './today/paths';
import { learntPaths } from './learnt/paths';
import { parcelPaths } from './parcels/paths';
import { arrivalPaths } from './arrivals/paths';
import { holdPaths } from './holds/paths';
import { plantingPaths } from './plantings/paths';
import { yearPaths } from './year/paths';
import { planPaths } from './plan/paths';
import { instrumentsPaths } from './instruments/paths';

/** Paths of each area of the contract. */
const byArea = {
  people: peoplePaths,
  yard: yardPaths,
  water: waterPaths,
  seed: seedPaths,
  lots: lotsPaths,
  roots: rootsPaths,
  growing: growingPaths,
  weather: weatherPaths,
  today: todayPaths,
  learnt: learntPaths,
  parcels: parcelPaths,
  plantings: plantingPaths,
  arrivals: arrivalPaths,
  holds: holdPaths,
  plan: planPaths,
  year: yearPaths,
  instruments: instrumentsPaths,
  archive: archivePaths,
} as const;

export type Area = keyof typeof byArea;

/** Method and path of every route, without the schemas: all a client needs at run time. */
export const paths = {
  ...peoplePaths,
  ...yardPaths,
  ...waterPaths,
  ...seedPaths,
  ...lotsPaths,
  ...rootsPaths,
  ...growingPaths,
  ...weatherPaths,
  ...todayPaths,
  ...learntPaths,
  ...parcelPaths,
  ...plantingPaths,
  ...arrivalPaths,
  ...holdPaths,
  ...planPaths,
  ...yearPaths,
  ...instrumentsPaths,
  ...archivePaths,
} as const;

const areas = new Map<string, Area>(
  (Object.keys(byArea) as Area[]).flatMap((area) =>
    Object.keys(byArea[area]).map((route): [string, Area] => [route, area]),
  ),
);
/** The area a route belongs to. */
export const areaOf = (route: keyof typeof paths): Area => areas.get(route)!;
