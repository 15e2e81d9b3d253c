import type { RouteName } from '@kauri/core/contract';
import type { Handler, NurseryHandler } from '../http/context';
import { growingHandlers } from './growing/routes';
import { instrumentHandlers } from './instruments/routes';
import { learntHandlers } from './learnt/routes';
import { lotHandlers } from './lots/routes';
import { peopleHandlers } from './people/routes';
import { rootHandlers } from './roots/routes';
import { seedHandlers } from './seed/routes';
import { todayHandlers } from './today/routes';
import { waterHandlers } from './water/routes';
import { stationHandlers } from './weather/stationRoutes';
import { weatherHandlers } from './weather/routes';
import { yardHandlers } from './yard/routes';

type Outside =
  'health' | 'door' | 'setup' | 'signIn' | 'signOut' | 'signOutEverywhere' | 'me' | 'calendar' | 'instrument';

/** One handler for every route of the contract; the compiler sees to it that none is missing. */
export type Handlers = { [N in RouteName]: N extends Outside ? Handler<N> : NurseryHandler<N> };

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
  ...instrumentHandlers,
};
