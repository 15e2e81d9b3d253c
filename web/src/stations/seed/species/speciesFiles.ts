import { Unfit, say } from '@kauri/core';
import { betaMean, speciesLibrary, startOf, type Beta, type StartingSpecies } from '@kauri/core';
import { NewSpecies, type Species } from '@kauri/core/contract';
import Papa from 'papaparse';
import { csvOf } from '../../../tables/csv';

/** What a table of species holds; everything else of a species comes in the JSON. */
const columns = [
  'code',
  'common',
  'latin',
  'seeds_per_kg',
  'viability',
  'emergence',
  'establishment',
  'grade',
  'winters',
  'storage',
  'sigma_days',
  'emergence_dd',
  'height_cm',
  'diameter_mm',
  'growth_per_dd',
  'root_per_dd',
  'lift_chill_h',
] as const;

type Row = Pick<Species, 'code' | 'common' | 'latin' | 'values'>;

export function speciesCsv(species: readonly Row[]): string {
  return csvOf(
    species.map(({ code, common, latin, values: v }) => {
      const start = startOf({ code, values: v });
      return {
        code,
        common,
        latin,
        seeds_per_kg: v.seedsPerKg,
        viability: round(betaMean(v.viability)),
        emergence: round(betaMean(v.emergence)),
        establishment: round(betaMean(v.establishment)),
        grade: round(betaMean(v.grade)),
        winters: v.winters,
        storage: start.storage,
        sigma_days: start.sigmaDays.median,
        emergence_dd: v.emergenceDd.median,
        height_cm: v.heightCm.median,
        diameter_mm: v.diameterMm.median,
        growth_per_dd: v.growthPerDd.median,
        root_per_dd: v.rootRatePerDd,
        lift_chill_h: v.liftChillHours,
      };
    }),
    columns,
  );
}
const round = (share: number) => Math.round(share * 1000) / 1000;

export function speciesJson(species: readonly Row[]): string {
  const rows = species.map(({ code, common, latin, values }) => ({
    code,
    common,
    latin,
    values: { ...values, start: startOf({ code, values }) },
  }));
  return JSON.stringify({ format: 'kauri-species', schema: 1, species: rows }, null, 2);
}

export interface SpeciesFileReading {
  good: StartingSpecies[];
  bad: string[];
}

/** A value no row of a file can be read against the contract by itself: ids are given when it is taken. */
const anId = '01890a5d-ac96-774b-bcce-b302099a8057';

/**
 * Species of a CSV or JSON file, line by line; what cannot be taken is named.
 * @param taken codes the nursery has already
 */
export function readSpeciesFile(text: string, name: string, taken: ReadonlySet<string>): SpeciesFileReading {
  const good: StartingSpecies[] = [];
  const bad: string[] = [];
  let rows: { line: string; read: () => unknown }[];
  try {
    rows = /\.json$/i.test(name)
      ? ((JSON.parse(text) as { species?: unknown[] }).species ?? []).map((row, i) => ({
          line: say`Species ${i + 1}`,
          read: () => row,
        }))
      : Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: 'greedy' }).data.map(
          (row, i) => ({
            line: say`Line ${i + 2}`,
            read: () => fromCsv(row),
          }),
        );
  } catch {
    return { good, bad: [say`This file is not JSON.`] };
  }
  if (!rows.length) bad.push(say`This file holds no species.`);
  const seen = new Set(taken);
  for (const { line, read } of rows) {
    try {
      const parsed = NewSpecies.shape.species.element.safeParse({ ...(read() as object), id: anId });
      if (!parsed.success)
        throw new Unfit(parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join(' '));
      const { id: _, ...species } = parsed.data;
      if (seen.has(species.code)) throw new Unfit(say`your list has the code ${species.code} already.`);
      seen.add(species.code);
      good.push(species as StartingSpecies);
    } catch (error) {
      bad.push(`${line}: ${(error as Error).message}`);
    }
  }
  return { good, bad };
}

/** What a line leaves out is taken from the library's species of that code, else from an ordinary one. */
function fromCsv(row: Record<string, string>): Row {
  const of = (column: (typeof columns)[number]) => (row[column] ?? '').trim();
  const number = (column: (typeof columns)[number], usual: number) => {
    if (of(column) === '') return usual;
    const value = Number(of(column).replace(',', '.'));
    if (!Number.isFinite(value)) throw new Unfit(say`${column}: “${of(column)}” is not a number.`);
    return value;
  };
  const base = (speciesLibrary.find((s) => s.code === of('code')) ?? speciesLibrary[0]).values;
  const start = base.start!;
  const share = (column: 'viability' | 'emergence' | 'establishment' | 'grade', usual: Beta): Beta => {
    const mean = number(column, betaMean(usual));
    const weight = usual.alpha + usual.beta;
    return { alpha: mean * weight, beta: (1 - mean) * weight };
  };
  return {
    code: of('code'),
    common: of('common'),
    latin: of('latin'),
    values: {
      ...base,
      seedsPerKg: number('seeds_per_kg', base.seedsPerKg),
      viability: share('viability', base.viability),
      emergence: share('emergence', base.emergence),
      establishment: share('establishment', base.establishment),
      grade: share('grade', base.grade),
      winters: number('winters', base.winters),
      emergenceDd: { ...base.emergenceDd, median: number('emergence_dd', base.emergenceDd.median) },
      heightCm: { ...base.heightCm, median: number('height_cm', base.heightCm.median) },
      diameterMm: { ...base.diameterMm, median: number('diameter_mm', base.diameterMm.median) },
      growthPerDd: { ...base.growthPerDd, median: number('growth_per_dd', base.growthPerDd.median) },
      rootRatePerDd: number('root_per_dd', base.rootRatePerDd),
      liftChillHours: number('lift_chill_h', base.liftChillHours),
      start: {
        ...start,
        storage: (of('storage') || start.storage) as typeof start.storage,
        sigmaDays: { ...start.sigmaDays, median: number('sigma_days', start.sigmaDays.median) },
      },
    },
  };
}
