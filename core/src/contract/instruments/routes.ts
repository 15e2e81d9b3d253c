import { z } from 'zod';
import { route } from '../route';
import { instrumentsPaths as paths } from './paths';
import * as growing from '../growing/schemas';

/** Instruments. */
export const instrumentsRoutes = {
  instrument: route(
    paths.instrument,
    'signed-in',
    'Readings of a caliper or height stick, as they are taken',
    {
      params: z.object({ tool: z.enum(['caliper', 'stick']) }),
      query: growing.InstrumentQuery,
      answerType: 'application/x-ndjson',
      answer: growing.InstrumentReading,
    },
  ),
} as const;
