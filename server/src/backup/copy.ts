import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { rename, rm, stat } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import pg from 'pg';

/** What a copy holds, as it was read back. */
export interface Copied {
  tables: number;
  rows: number;
  bytes: number;
}

type Counts = Map<string, number>;

/** PostgreSQL's own programs: by their folder, or as they are found on the path. */
const program = (bin: string | null, name: string) => (bin === null ? name : `${bin}/${name}`);

/** Runs a program of PostgreSQL's to its end. @throws Error with its last words where it fails */
async function run(
  command: string,
  args: string[],
  { env = {}, onLine }: { env?: Record<string, string>; onLine?: (line: string) => void } = {},
): Promise<void> {
  const child = spawn(command, args, {
    stdio: ['ignore', onLine ? 'pipe' : 'ignore', 'pipe'],
    env: { ...process.env, ...env },
  });
  let words = '';
  child.stderr!.on('data', (chunk: Buffer) => (words = (words + chunk.toString()).slice(-2000)));
  const reading = (async () => {
    if (child.stdout && onLine)
      for await (const line of createInterface({ input: child.stdout, crlfDelay: Infinity })) onLine(line);
  })();
  const [code] = (await Promise.race([
    once(child, 'close'),
    once(child, 'error').then(([error]) => {
      throw error;
    }),
  ])) as [number | null];
  await reading;
  if (code === 0) return;
  if (/No space left on device/.test(words))
    throw new Error('The disk is full: the copy was not made, and what was begun of it is gone.');
  throw new Error(words.trim().split('\n').slice(-3).join('\n') || `${command} ended with ${code}.`);
}

/** How PostgreSQL's programs come to a database: by their environment, so that no list of processes shows a password. */
function accessTo(databaseUrl: string): Record<string, string> {
  const url = new URL(databaseUrl);
  return {
    PGHOST: url.hostname,
    PGPORT: url.port || '5432',
    PGUSER: decodeURIComponent(url.username),
    PGPASSWORD: decodeURIComponent(url.password),
    PGDATABASE: decodeURIComponent(url.pathname.slice(1)),
  };
}

/** Rows of every table, in the snapshot the copy is made of. */
async function countRows(client: pg.Client): Promise<Counts> {
  const tables = await client.query<{ name: string }>(
    `select format('%I.%I', n.nspname, c.relname) as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
     where c.relkind = 'r' and n.nspname not in ('pg_catalog', 'information_schema') and n.nspname not like 'pg\\_%'`,
  );
  const counts: Counts = new Map();
  for (const { name } of tables.rows) {
    const { rows } = await client.query<{ n: number }>(`select count(*)::int as n from ${name}`);
    counts.set(name, rows[0].n);
  }
  return counts;
}

/** Rows of every table in a copy, by reading all of it as it would be restored. */
async function readBack(bin: string | null, file: string): Promise<Counts> {
  const counts: Counts = new Map();
  let table: string | null = null;
  await run(program(bin, 'pg_restore'), ['--data-only', '-f', '-', file], {
    onLine: (line) => {
      if (table === null) {
        const begun = /^COPY (\S+) .*FROM stdin;$/.exec(line);
        if (begun) counts.set((table = begun[1]), 0);
      } else if (line === '\\.') table = null;
      else counts.set(table, counts.get(table)! + 1);
    },
  });
  return counts;
}

/**
 * Copies the whole database into one file, and reads the file back: every table must hold as many rows as stood in the
 * database at that moment. People may go on writing meanwhile. The file has its name only once that is so.
 * @param bin folder of PostgreSQL's programs; null where they are on the path
 * @throws Error where the copy could not be made, or does not hold what it should
 */
export async function copyWhole(databaseUrl: string, file: string, bin: string | null): Promise<Copied> {
  const part = `${file}.part`;
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query<{ snapshot: string }>('select pg_export_snapshot() as snapshot');
    await run(
      program(bin, 'pg_dump'),
      ['-Fc', '--no-owner', '--no-privileges', `--snapshot=${rows[0].snapshot}`, '-f', part],
      { env: accessTo(databaseUrl) },
    );
    const [stood, held] = [await countRows(client), await readBack(bin, part)];
    for (const [table, count] of stood)
      if (held.get(table) !== count)
        throw new Error(
          `The copy holds ${held.get(table) ?? 'no'} rows of ${table}, where ${count} stood. It was thrown away.`,
        );
    await rename(part, file);
    return {
      tables: stood.size,
      rows: [...stood.values()].reduce((sum, n) => sum + n, 0),
      bytes: (await stat(file)).size,
    };
  } finally {
    await rm(part, { force: true });
    await client.end();
  }
}

/** Reads a copy into a database that has nothing in it, and checks that its ledgers add up. */
export async function restoreWhole(databaseUrl: string, file: string, bin: string | null): Promise<Copied> {
  await stat(file).catch(() => {
    throw new Error(`There is no file ${file}.`);
  });
  const held = await readBack(bin, file).catch((error: Error) => {
    throw new Error(`${file} is no copy of Kauri’s, or it is damaged: ${error.message}`);
  });
  await run(
    program(bin, 'pg_restore'),
    [
      '--single-transaction',
      '--exit-on-error',
      '--no-owner',
      '--no-privileges',
      '-d',
      accessTo(databaseUrl).PGDATABASE,
      file,
    ],
    { env: accessTo(databaseUrl) },
  );
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const stood = await countRows(client);
    for (const [table, count] of held)
      if (stood.get(table) !== count)
        throw new Error(`${table} has ${stood.get(table)} rows, and the copy ${count}.`);
    await mustAddUp(client);
    return {
      tables: stood.size,
      rows: [...stood.values()].reduce((sum, n) => sum + n, 0),
      bytes: (await stat(file)).size,
    };
  } finally {
    await client.end();
  }
}

/** @throws Error where an account does not hold what its movements come to */
async function mustAddUp(client: pg.ClientBase): Promise<void> {
  const { rows } = await client.query<{ wrong: number }>(
    `select count(*)::int as wrong from (
       select nursery_id, lot_id, account, sum(count) as held from (
         select nursery_id, lot_id, to_account as account, count from movement where to_account <> 'supply'
         union all select nursery_id, lot_id, from_account, -count from movement where from_account <> 'supply'
       ) moved group by 1, 2, 3
     ) summed full join balance using (nursery_id, lot_id, account)
     where summed.held is distinct from balance.held`,
  );
  if (rows[0].wrong) throw new Error(`${rows[0].wrong} accounts do not hold what their movements come to.`);
}
