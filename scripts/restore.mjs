import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { withDatabase } from './lib/database.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm run restore -- FILE             puts a copy in place of what npm start uses; what was there is kept under another name
 * npm run restore -- FILE --empty     of what npm start -- --empty uses
 * Kauri must not be running. With DATABASE_URL, the database it names must have nothing in it.
 */
async function main() {
  const { values, positionals } = parseArgs({
    options: { empty: { type: 'boolean', default: false } },
    allowPositionals: true,
  });
  if (positionals.length !== 1) throw new Plain('Use: npm run restore -- FILE [--empty]');
  const file = resolve(process.env.INIT_CWD ?? '.', positionals[0]);
  await step('Packages', ensurePackages);
  await step('Server', ensureBuilt);
  const { restoreWhole } = await import('../server/dist/start.js');
  const { default: pg } = await import('pg');
  await withDatabase(values, async (url, bin) => {
    const place = await (process.env.DATABASE_URL ? mustBeBare(pg, url) : asideOf(pg, url));
    const { tables, rows } = await step('Restore, checked', () => restoreWhole(place.url, file, bin)).catch(
      async (error) => {
        await place.undo();
        throw error;
      },
    );
    const kept = await place.take();
    if (kept) console.log(`· What was there is kept as database ${kept}.`);
    console.log(
      `\n${tables} tables and ${rows} rows are back; every ledger adds up. npm start goes on with them.`,
    );
  });
}

/** The copy goes into a database beside the one in use, and takes its name once it is whole. */
async function asideOf(pg, url) {
  const target = new URL(url);
  const name = target.pathname.slice(1);
  const stamp = new Date().toISOString().replace(/\D/g, '').slice(0, 14);
  const beside = `${name}_restored_${stamp}`;
  const admin = async (...statements) => {
    const client = new pg.Client({
      connectionString: Object.assign(new URL(url), { pathname: '/postgres' }).toString(),
    });
    await client.connect();
    try {
      let last;
      for (const statement of statements) last = await client.query(statement);
      return last;
    } finally {
      await client.end();
    }
  };
  const used = await admin(`select 1 from pg_stat_activity where datname = '${name}'`);
  if (used.rowCount) throw new Plain('Kauri is running. Stop it first, then restore.');
  await admin(`create database ${beside}`);
  return {
    url: Object.assign(new URL(url), { pathname: `/${beside}` }).toString(),
    undo: () => admin(`drop database ${beside}`),
    take: async () => {
      const exists = await admin(`select 1 from pg_database where datname = '${name}'`);
      const kept = `${name}_before_${stamp}`;
      if (exists.rowCount) await admin(`alter database ${name} rename to ${kept}`);
      await admin(`alter database ${beside} rename to ${name}`);
      return exists.rowCount ? kept : null;
    },
  };
}

async function mustBeBare(pg, url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rowCount } = await client.query("select 1 from pg_tables where schemaname = 'public' limit 1");
  await client.end();
  if (rowCount)
    throw new Plain('The database that DATABASE_URL names has tables already. Name an empty one.');
  return { url, undo: async () => undefined, take: async () => null };
}

main().catch((error) => {
  fail(error);
  process.exitCode = 1;
});
