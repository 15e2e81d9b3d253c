import { told } from '../told';
import { z } from 'zod';
import { coverKinds } from '../../weather/covers';
import { readingFlags } from '../../weather/readings';
import { Id, Name, numberBetween, PlainDate, wholeNumber } from '../basics';

const column = z.coerce
  .number(told`Choose a column.`)
  .int()
  .min(0, told`Choose a column.`)
  .max(200);
/** In a query an absent column is left out. */
const optionalColumn = column.optional().transform((at) => at ?? null);
const flag = z.enum(['true', 'false']).transform((text) => text === 'true');
const importing = {
  /** Only look: report what would be taken and what is wrong, and store nothing. */
  check: flag,
  dateOrder: z.enum(['iso', 'day-first', 'month-first']),
};

export const WeatherImportQuery = z.object({
  ...importing,
  date: column,
  tMin: column,
  tMax: column,
  rain: optionalColumn,
  temperature: z.enum(['C', 'F']),
  rainUnit: z.enum(['mm', 'in']),
});

export const MeasurementImportQuery = z.object({
  ...importing,
  id: z.uuidv7().describe('Makes a retried import the same import'),
  lot: column,
  date: column,
  height: optionalColumn,
  diameter: optionalColumn,
  heightUnit: z.enum(['cm', 'in']),
  diameterUnit: z.enum(['mm', 'in']),
});

/** What is wrong with a line of a table. */
export const LineIssue = z.object({ line: z.number(), message: z.string() });
export type LineIssue = z.infer<typeof LineIssue>;

/** What an import reports at its end. */
export const ImportReport = z.object({
  lines: z.number(),
  good: z.number(),
  bad: z.number(),
  /** Lines that say what is recorded already: they are left out. */
  known: z.number(),
  /** The first hundred. */
  issues: z.array(LineIssue),
  first: PlainDate.nullable(),
  last: PlainDate.nullable(),
  /** Days within first…last that the table leaves out. */
  gaps: z.array(z.object({ from: PlainDate, to: PlainDate })),
  stored: z.boolean(),
  /** What it is taken back by; null where nothing was stored. */
  taken: Id.nullable(),
});
export type ImportReport = z.infer<typeof ImportReport>;

/** A table that was taken in, and can be taken back as one act. */
export const TableTaken = z.object({
  id: Id,
  at: z.string(),
  by: z.string(),
  kind: z.enum(['weather', 'measurements']),
  good: z.number(),
  first: PlainDate.nullable(),
  last: PlainDate.nullable(),
});
export type TableTaken = z.infer<typeof TableTaken>;
/** The latest, newest first; those taken back are left out. */
export const TablesTaken = z.object({ tables: z.array(TableTaken) });
/** What was taken back, and what stays because it was written anew since. */
export const TableTakenBack = z.object({ tables: z.array(TableTaken), back: z.number(), left: z.number() });

/** One line of the stream an import answers with. */
export const ImportProgress = z.union([
  z.object({ progress: z.number() }),
  z.object({ report: ImportReport }),
  z.object({ problem: z.unknown() }),
]);

/** Daily weather, column by column from `start`; null where nothing was measured. */
export const WeatherColumns = z.object({
  start: PlainDate.nullable(),
  tMinC: z.array(z.number().nullable()),
  tMaxC: z.array(z.number().nullable()),
  rainMm: z.array(z.number().nullable()),
  /** Only stations give these. */
  humidity: z.array(z.number().nullable()),
  windMs: z.array(z.number().nullable()),
});
export type WeatherColumns = z.infer<typeof WeatherColumns>;

const offset = (what: string) => numberBetween(what, -15, 20, '°C');

/** A cover over places, and what it adds to a day against the open: typed, or fitted from a logger under it. */
export const CoverSchema = z.object({
  id: Id,
  name: Name,
  kind: z.enum(coverKinds),
  lowC: offset('Nights against the open'),
  highC: offset('Days against the open'),
  fitted: z
    .object({ stationId: Id, days: wholeNumber('Days', 1, 100_000), lowSd: z.number(), highSd: z.number() })
    .nullable(),
});

/** Covers, and which places stand under which. */
export const ClimateSchema = z
  .object({
    schema: z.literal(1),
    covers: z.array(CoverSchema).max(30, told`At most 30 covers.`),
    places: z.array(z.object({ placeId: Id, coverId: Id })).max(2000),
  })
  .refine(
    (c) => c.places.every((p) => c.covers.some((cover) => cover.id === p.coverId)),
    told`A place names a cover that is not in the list.`,
  );
export type Climate = z.infer<typeof ClimateSchema>;

export const KeptClimate = z.object({ version: z.number(), climate: ClimateSchema });
export type KeptClimate = z.infer<typeof KeptClimate>;
export const EditedClimate = z.object({ version: wholeNumber('Version', 0, 1e9), climate: ClimateSchema });

export const stationFaults = ['none', 'gap', 'spike', 'drift', 'stuck', 'dead'] as const;

/** A station or logger with how it has been doing. */
export const Station = z.object({
  id: Id,
  name: z.string(),
  coverId: Id.nullable(),
  /** Last hour it told of; null if it never did. */
  lastHour: z.string().nullable(),
  /** Days since then. */
  silentDays: z.number().nullable(),
  hours: z.number(),
  flagged: z.array(z.object({ flag: z.enum(readingFlags), hours: z.number(), last: z.string() })),
  /** Days of the last sixty it does not fill, as runs. */
  missing: z.array(z.object({ from: PlainDate, to: PlainDate, days: z.number() })),
});
export type Station = z.infer<typeof Station>;
export const Stations = z.object({ stations: z.array(Station) });

export const NewStation = z.object({ id: Id, name: Name, coverId: Id.nullable() });

/** What reading a station brought. */
export const StationRead = z.object({
  hours: z.number(),
  flagged: z.number(),
  days: z.number(),
  stations: z.array(Station),
  weather: WeatherColumns,
});

/** Readings as they came, doubted ones among them. */
export const RawReadings = z.object({
  readings: z.array(
    z.object({
      hour: z.string(),
      tempC: z.number().nullable(),
      rainMm: z.number().nullable(),
      humidity: z.number().nullable(),
      windMs: z.number().nullable(),
      flag: z.enum(readingFlags).nullable(),
    }),
  ),
});
/** One line of a station's stream. */
export const StationLine = z.object({
  hour: z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}$/),
  tempC: z.number().nullable(),
  rainMm: z.number().nullable(),
  humidity: z.number().nullable(),
  windMs: z.number().nullable(),
});

/** The stand-in of a station made to fail, on days to come and past alike. */
export const FailStation = z.object({ fault: z.enum(stationFaults) });

/** A cover's figures fitted from the logger under it. */
export const CoverFitted = z.object({
  fit: z.object({
    lowC: z.number(),
    highC: z.number(),
    lowSd: z.number(),
    highSd: z.number(),
    days: z.number(),
  }),
});
