import type pg from 'pg';

/**
 * Tables that are no part of a nursery's archive: sums and forecasts that are worked out anew, what guards writes and
 * sign-ins, and who belongs to it, which the Kauri it comes into decides.
 */
const LEFT_OUT = new Set([
  'balance',
  'parcel_held',
  'lot_asks',
  'nursery_today',
  'receipt',
  'invite',
  'membership',
  'calendar_token',
]);
/** Sums that go along to be compared with, and are worked out anew where the archive comes in. */
export const SUMS = ['balance', 'parcel_held'] as const;

export interface TenantTable {
  name: string;
  /** In the order of the table. */
  columns: string[];
  /** Among them, what the database counts itself: only its order is a nursery's. */
  counted: string[];
  key: string[];
}

/** Every table that an archive holds, those that others refer to first. */
export const tenantTables = async (client: pg.ClientBase): Promise<TenantTable[]> =>
  (await everyTenantTable(client)).filter(({ name }) => !LEFT_OUT.has(name));

/** Every table that holds a nursery's own rows, those that others refer to first: found from the schema, so that a new one is not forgotten. */
export async function everyTenantTable(client: pg.ClientBase): Promise<TenantTable[]> {
  const { rows } = await client.query<TenantTable & { refers: string[] }>(
    `select c.relname as name,
       (select array_agg(a.attname::text order by a.attnum) from pg_attribute a where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped) as columns,
       coalesce((select array_agg(a.attname::text) from pg_attribute a where a.attrelid = c.oid and a.attidentity <> ''), '{}') as counted,
       (select array_agg(a.attname::text order by array_position(i.indkey::int2[], a.attnum)) from pg_index i join pg_attribute a on a.attrelid = c.oid and a.attnum = any(i.indkey) where i.indrelid = c.oid and i.indisprimary) as key,
       coalesce((select array_agg(distinct f.relname::text) from pg_constraint k join pg_class f on f.oid = k.confrelid where k.conrelid = c.oid and k.contype = 'f' and f.oid <> c.oid), '{}') as refers
     from pg_class c join pg_namespace s on s.oid = c.relnamespace
     where s.nspname = 'public' and c.relkind = 'r'
       and exists (select from pg_attribute a where a.attrelid = c.oid and a.attname = 'nursery_id' and not a.attisdropped)
     order by c.relname`,
  );
  const names = new Set(rows.map(({ name }) => name));
  const ordered: TenantTable[] = [];
  const placed = new Set<string>();
  while (ordered.length < rows.length) {
    const next = rows.find(
      ({ name, refers }) =>
        !placed.has(name) && refers.every((other) => placed.has(other) || !names.has(other)),
    );
    if (!next)
      throw new Error('Tables of a nursery refer to each other in a circle: no archive can be read.');
    placed.add(next.name);
    ordered.push({ name: next.name, columns: next.columns, counted: next.counted, key: next.key });
  }
  return ordered;
}

/** How many changes the tables of this database have seen. */
export async function schemaNumber(client: pg.ClientBase): Promise<number> {
  const { rows } = await client.query<{ n: number }>('select schema_number() as n');
  return rows[0].n;
}

/** Columns that name a person. */
export const PERSON_COLUMNS = ['person_id', 'assigned_to'];

export const quoted = (names: readonly string[]) => names.map((name) => `"${name}"`).join(', ');
