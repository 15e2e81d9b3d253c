import type { z } from 'zod';
import { archiveRoutes } from './archive/routes';
import { peopleRoutes } from './people/routes';
import { yardRoutes } from './yard/routes';
import { waterRoutes } from './water/routes';
import { seedRoutes } from './seed/routes';
import { lotsRoutes } from './lots/routes';
import { rootsRoutes } from './roots/routes';
import { growingRoutes } from './growing/routes';
import { weatherRoutes } from './weather/routes';
import { todayRoutes } from './today/routes';
import { learntRoutes } from './learnt/routes';
import { parcelRoutes } from './parcels/routes';
import { arrivalRoutes } from './arrivals/routes';
import { holdRoutes } from './holds/routes';
import { plantingRoutes } from './plantings/routes';
import { yearRoutes } from './year/routes';
import { planRoutes } from './plan/routes';
import { instrumentsRoutes } from './instruments/routes';

/** Every route of the server, area by area: validation, the typed client and OpenAPI come from it. */
export const routes = {
  ...peopleRoutes,
  ...yardRoutes,
  ...waterRoutes,
  ...seedRoutes,
  ...lotsRoutes,
  ...rootsRoutes,
  ...growingRoutes,
  ...weatherRoutes,
  ...todayRoutes,
  ...learntRoutes,
  ...parcelRoutes,
  ...plantingRoutes,
  ...arrivalRoutes,
  ...holdRoutes,
  ...planRoutes,
  ...yearRoutes,
  ...instrumentsRoutes,
  ...archiveRoutes,
} as const;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
export type ParamsOf<N extends RouteName> = z.infer<Routes[N]['params']>;
export type QueryOf<N extends RouteName> = z.infer<Routes[N]['query']>;
export type QueryInputOf<N extends RouteName> = z.input<Routes[N]['query']>;
export type BodyOf<N extends RouteName> = z.infer<Routes[N]['body']>;
export type BodyInputOf<N extends RouteName> = z.input<Routes[N]['body']>;
export type AnswerOf<N extends RouteName> = z.infer<Routes[N]['answer']>;
