import { told } from '../told';
import { z } from 'zod';
import { Id, Name, numberBetween, PlainDate, wholeNumber } from '../basics';

const version = wholeNumber('Version', 0, 1e9);

/** Drip on one place and how it dries. */
export const DripSchema = z.object({
  placeId: Id,
  lineSpacingMm: numberBetween('Line spacing', 50, 2000, 'mm'),
  emitterSpacingMm: numberBetween('Emitter spacing', 50, 2000, 'mm'),
  emitterFlowLph: numberBetween('Emitter flow', 0.1, 100, 'L/h'),
  nominalPressureM: numberBetween('Emitter’s pressure', 0.5, 60, 'm'),
  exponent: numberBetween('Emitter exponent', 0, 1),
  insideDiameterMm: numberBetween('Pipe’s inside diameter', 2, 60, 'mm'),
  manufacturingCv: numberBetween('Variation between emitters', 0, 0.3),
  canopyCover: numberBetween('Share covered by leaves', 0, 1),
  rainShare: numberBetween('Share of rain that reaches it', 0, 1),
  /** Whether the lines' ends are joined. */
  looped: z.boolean().optional(),
});
export type Drip = z.infer<typeof DripSchema>;

export const WaterPlanSchema = z.object({
  schema: z.literal(1),
  bucketLitres: numberBetween('Bucket', 0.5, 1000, 'L'),
  bucketSeconds: numberBetween('Seconds to fill it', 1, 3600, 's'),
  pressureM: numberBetween('Pressure at the manifold', 0.1, 80, 'm'),
  dryDown: numberBetween('Dry-down', 0.05, 0.95),
  drips: z.array(DripSchema).max(500),
  zones: z.array(z.object({ id: Id, name: Name, placeIds: z.array(Id).max(200) })).max(60),
});
export type WaterPlan = z.infer<typeof WaterPlanSchema>;

export const KeptWater = z.object({ version: z.number(), plan: WaterPlanSchema });
export type KeptWater = z.infer<typeof KeptWater>;
export const EditedWater = z.object({ version, plan: WaterPlanSchema });

/** What the controller is told: how long each zone runs and how often. */
export const ProgrammeSchema = z.object({
  from: PlainDate,
  zones: z
    .array(
      z.object({
        id: Id,
        name: Name,
        minutes: numberBetween('Run time', 0, 600, 'min'),
        everyDays: numberBetween('Days between waterings', 0.5, 60),
        places: z.array(
          z.object({
            placeId: Id,
            flowLph: numberBetween('Flow', 0, 20_000, 'L/h'),
            areaM2: numberBetween('Area', 0.01, 1000, 'm²'),
            heldMm: numberBetween('Water held', 1, 1000, 'mm'),
            cover: numberBetween('Cover', 0, 1),
            rainShare: numberBetween('Rain share', 0, 1),
          }),
        ),
      }),
    )
    .max(60)
    .refine(
      (zones) => {
        const places = zones.flatMap((zone) => zone.places.map(({ placeId }) => placeId));
        return new Set(places).size === places.length;
      },
      told`A place is watered by one zone.`,
    ),
});
export type Programme = z.infer<typeof ProgrammeSchema>;

export const waterFaults = ['none', 'stuck-closed', 'stuck-open', 'dead-probe', 'no-supply'] as const;

export const WaterReadingRow = z.object({
  placeId: Id,
  day: PlainDate,
  askedLitres: z.number(),
  litres: z.number().nullable(),
  before: z.number().nullable(),
  after: z.number().nullable(),
});
export type WaterReadingRow = z.infer<typeof WaterReadingRow>;

export const Watering = z.object({
  programme: ProgrammeSchema.nullable(),
  readings: z.array(WaterReadingRow),
});
export type Watering = z.infer<typeof Watering>;

/** Makes the controller's stand-in fail on a place, or everywhere. */
export const StandInFault = z.object({ placeId: Id.nullable(), fault: z.enum(waterFaults) });
