import { inNursery, route } from '../route';
import { yearPaths as paths } from './paths';
import { Year, YearQuery } from './schemas';

/** What a year came to, by the ledger. */
export const yearRoutes = {
  year: route(paths.year, 'visitor', 'What moved in the ledger between two days', {
    params: inNursery,
    query: YearQuery,
    answer: Year,
  }),
} as const;
