import { parseArgs } from 'node:util';
import { mustExist, withDatabase } from './lib/database.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { fail, Plain } from './lib/steps.mjs';

/*
 * npm run password-link -- EMAIL             prints a link by which somebody sets a new password, once, within a day
 * npm run password-link -- EMAIL --empty     in the database that npm start -- --empty uses
 * For an owner who is alone and has forgotten theirs. Whoever may run this on the machine may read its database too.
 */
async function main() {
  const { values, positionals } = parseArgs({
    options: { empty: { type: 'boolean', default: false } },
    allowPositionals: true,
  });
  const email = positionals[0]?.trim().toLowerCase();
  if (!email || positionals.length > 1) throw new Plain('Use: npm run password-link -- EMAIL [--empty]');
  await ensurePackages();
  await withDatabase(values, async (url) => {
    const { createHash, randomBytes } = await import('node:crypto');
    const client = await mustExist(url);
    try {
      const secret = randomBytes(32).toString('base64url');
      const { rows } = await client.query(
        `insert into password_link (person_id, token_hash, ends_at)
         select id, $2, now() + interval '24 hours' from person where email = $1
         on conflict (person_id) do update set token_hash = excluded.token_hash, ends_at = excluded.ends_at
         returning person_id`,
        [email, createHash('sha256').update(secret).digest('base64url')],
      );
      if (!rows.length) throw new Plain(`Nobody here has the address ${email}.`);
      console.log(
        `Open this at the address where Kauri runs, once, within a day:\n\n  /password#${secret}\n`,
      );
    } finally {
      await client.end();
    }
  });
}

main().catch((error) => {
  fail(error);
  process.exitCode = 1;
});
