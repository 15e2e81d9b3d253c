import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './lib/build.mjs';
import { mustExist, withDatabase } from './lib/database.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { fail, Plain, step } from './lib/steps.mjs';

/*
 * npm run backup -- FILE             copies the whole database into FILE and reads it back; Kauri may run meanwhile
 * npm run backup -- FILE --empty     that of npm start -- --empty
 */
async function main() {
  const { values, positionals } = parseArgs({
    options: { empty: { type: 'boolean', default: false } },
    allowPositionals: true,
  });
  if (positionals.length !== 1) throw new Plain('Use: npm run backup -- FILE [--empty]');
  const file = resolve(process.env.INIT_CWD ?? '.', positionals[0]);
  await step('Packages', ensurePackages);
  await step('Server', ensureBuilt);
  const { copyWhole } = await import('../server/dist/start.js');
  await withDatabase(values, async (url, bin) => {
    await (await mustExist(url)).end();
    const { tables, rows, bytes } = await step('Copy, read back', () => copyWhole(url, file, bin));
    console.log(
      `\n${file}: ${tables} tables, ${rows} rows, ${(bytes / 1e6).toFixed(1)} MB. Keep it on another machine.`,
    );
  });
}

main().catch((error) => {
  fail(error);
  process.exitCode = 1;
});
