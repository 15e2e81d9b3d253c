import { z } from 'zod';
import { PlainDate } from './basics';

const column = z.coerce.number('Choose a column.').int().min(0, 'Choose a column.').max(200);
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
  /** The first hundred. */
  issues: z.array(LineIssue),
  first: PlainDate.nullable(),
  last: PlainDate.nullable(),
  /** Days within first…last that the table leaves out. */
  gaps: z.array(z.object({ from: PlainDate, to: PlainDate })),
  stored: z.boolean(),
});
export type ImportReport = z.infer<typeof ImportReport>;

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
});
export type WeatherColumns = z.infer<typeof WeatherColumns>;
