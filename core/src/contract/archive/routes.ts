import { z } from 'zod';
import { inNursery, route } from '../route';
import { archivePaths as paths } from './paths';
import { BroughtIn } from './schemas';

/** A nursery taken out whole, and brought in. */
export const archiveRoutes = {
  takeOut: route(paths.takeOut, 'owner', 'The whole nursery as open files in one archive', {
    params: inNursery,
    answerType: 'application/zip',
    answer: z.string().describe('CSV tables, plan as GeoJSON, photos, and a manifest with digests'),
  }),
  bringIn: route(
    paths.bringIn,
    'signed-in',
    'Brings a nursery in from an archive; whoever does becomes its owner',
    { bodyType: 'application/zip', answer: BroughtIn },
  ),
} as const;
