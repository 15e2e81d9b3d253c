import type { Handlers } from '../http/context';
import { archiveHandlers } from './archive/routes';
import { arrivalHandlers } from './arrivals/routes';
import { growingHandlers } from './growing/routes';
import { holdHandlers } from './holds/routes';
import { instrumentHandlers } from './instruments/routes';
import { learntHandlers } from './learnt/routes';
import { lotHandlers } from './lots/routes';
import { peopleHandlers } from './people/routes';
import { parcelHandlers } from './parcels/routes';
import { plantingHandlers } from './plantings/routes';
import { planHandlers } from './plan/routes';
import { rootHandlers } from './roots/routes';
import { seedHandlers } from './seed/routes';
import { todayHandlers } from './today/routes';
import { waterHandlers } from './water/routes';
import { stationHandlers } from './weather/stationRoutes';
import { weatherHandlers } from './weather/routes';
import { yearHandlers } from './year/routes';
import { yardHandlers } from './yard/routes';

/** The areas' handlers in one table; the compiler sees to it that none is missing. */
export const handlers: Handlers = {
  ...peopleHandlers,
  ...yardHandlers,
  ...waterHandlers,
  ...seedHandlers,
  ...lotHandlers,
  ...rootHandlers,
  ...weatherHandlers,
  ...stationHandlers,
  ...growingHandlers,
  ...todayHandlers,
  ...learntHandlers,
  ...parcelHandlers,
  ...plantingHandlers,
  ...arrivalHandlers,
  ...holdHandlers,
  ...planHandlers,
  ...yearHandlers,
  ...instrumentHandlers,
  ...archiveHandlers,
};
