import { say } from '../../speech/say';
import { told } from '../told';
import { z } from 'zod';
import { elementKinds, shapeOfKind } from '../../site/elements';
import { crossesItself } from '../../site/shapes';
import { Id, Name, numberBetween, wholeNumber } from '../basics';
import { Place, PlaceBody } from './schemas';

const metres = numberBetween('Metres on the plan', -2000, 2000, 'm');
const PointSchema = z.tuple([metres, metres]);
const share = (what: string) => numberBetween(what, 0, 1).optional();

export const SiteElementSchema = z
  .object({
    id: Id,
    kind: z.enum(elementKinds),
    name: Name,
    points: z
      .array(PointSchema)
      .min(1)
      .max(400, told`At most 400 corners.`),
    heightM: numberBetween('Height', 0, 100, 'm').optional(),
    passesInLeaf: share('Sun let through in leaf'),
    passesBare: share('Sun let through out of leaf'),
    ground: z.enum(['paving', 'gravel', 'soil', 'weeds']).optional(),
    widthM: numberBetween('Path width', 0.2, 20, 'm').optional(),
    main: z.boolean().optional(),
    flowLpm: numberBetween('Standpipe flow', 0.1, 1000, 'L/min').optional(),
  })
  .superRefine((element, ctx) => {
    const shape = shapeOfKind[element.kind];
    const least = { point: 1, line: 2, area: 3 }[shape];
    const n = element.points.length;
    if (n < least || (shape === 'point' && n > 1))
      ctx.addIssue({
        code: 'custom',
        path: ['points'],
        message: `${element.name}: ${shape === 'area' ? say`an area needs three corners or more` : shape === 'line' ? say`a line needs two points or more` : say`it stands on one point`}.`,
      });
    if (shape === 'area' && n >= 3 && crossesItself(element.points))
      ctx.addIssue({
        code: 'custom',
        path: ['points'],
        message: say`The outline of ${element.name} crosses itself.`,
      });
  });

export const SitePlanSchema = z.object({
  schema: z.literal(1),
  elements: z.array(SiteElementSchema).max(500, told`At most 500 things on the plan.`),
});

export const KeptSite = z.object({ version: z.number(), plan: SitePlanSchema });
export type KeptSite = z.infer<typeof KeptSite>;

const version = wholeNumber('Version', 0, 1e9);

/** One edit of the yard, whole or not at all: the site, places moved, added and taken away. */
export const Arrangement = z.object({
  id: Id,
  site: z.object({ version, plan: SitePlanSchema }).nullable(),
  moved: z
    .array(
      z.object({
        id: Id,
        version,
        eastM: numberBetween('Metres east', -1000, 1000, 'm'),
        northM: numberBetween('Metres north', -1000, 1000, 'm'),
        angleDeg: numberBetween('Angle', 0, 359.999, '°'),
      }),
    )
    .max(1000),
  added: z.array(z.object({ id: Id, place: PlaceBody })).max(500),
  removed: z.array(z.object({ id: Id, version })).max(500),
});
export type Arrangement = z.infer<typeof Arrangement>;

export const Arranged = z.object({ site: KeptSite, places: z.array(Place), removed: z.array(Id) });
export type Arranged = z.infer<typeof Arranged>;
