import { writeFileSync } from 'node:fs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { format, resolveConfig } from 'prettier';

/*
 * npm run calibrate             tries the models on simulated nurseries, in full, and writes docs/calibration.md
 * npm run calibrate -- --lots N with N lots a line instead of 2 000 (and ten times as many nurseries at the desk)
 */
const root = new URL('../', import.meta.url).pathname;
const at = process.argv.indexOf('--lots');
const lots = at < 0 ? 2000 : Number(process.argv[at + 1]);
const SEED = 20261128;

const folder = mkdtempSync(join(tmpdir(), 'kauri-calibrate-'));
try {
  const outfile = join(folder, 'calibrate.mjs');
  await build({
    entryPoints: [join(root, 'core/src/calibrate/index.ts')],
    bundle: true,
    format: 'esm',
    platform: 'node',
    outfile,
    logLevel: 'warning',
  });
  const { deskTally, gradeTally, growthTally, growthWorlds, liftingTally, startingSpecies } = await import(
    outfile
  );
  const percent = (share) => `${(share * 100).toFixed(1)} %`;
  const rows = [];
  for (const world of growthWorlds)
    for (const ahead of ['weeks', 'season'])
      for (const samples of [1, 2, 3]) {
        const t = growthTally(world, samples, ahead, lots, SEED);
        rows.push(
          `| ${t.world} | ${samples} | ${ahead === 'weeks' ? 'four weeks' : 'end of next season'} | ${percent(t.held)} | ${(t.width * 100).toFixed(0)} % | ${t.pinball.toFixed(4)} | ${t.lastPlusSpecies.toFixed(4)} | ${t.lastValue.toFixed(4)} |`,
        );
        console.log(rows.at(-1));
      }
  const grades = [];
  for (const world of growthWorlds)
    for (const samples of [1, 2, 3]) {
      const t = gradeTally(world, samples, 'weeks', Math.round(lots / 4), SEED);
      grades.push(`| ${t.world} | ${samples} | ${percent(t.held)} | ${(t.width * 100).toFixed(0)} % |`);
      console.log(grades.at(-1));
    }
  const desk = [0, 3, 10, 30].map((own) => {
    const kept = [0.03, 0.05, 0.1].map((between) => percent(deskTally(own, between, lots * 10, SEED).kept));
    const row = `| ${own} | ${kept.join(' | ')} |`;
    console.log(row);
    return row;
  });
  const alder = startingSpecies.find((s) => s.code === 'ALN').values;
  const lifting = [
    ['42° N, 200 m', { latitudeDeg: 42, elevationM: 200 }],
    ['54.6° N, 185 m', { latitudeDeg: 54.6, elevationM: 185 }],
    ['41° S, 100 m', { latitudeDeg: -41, elevationM: 100 }],
  ].flatMap(([name, site]) =>
    [1, 3, 10].map((years) => {
      const t = liftingTally(alder, site, years, Math.round(lots / 5), SEED);
      const row = `| ${name} | ${years} | ${percent(t.held)} | ${t.widthDays.toFixed(0)} d |`;
      console.log(row);
      return row;
    }),
  );
  const text = `# Calibration

Made by \`npm run calibrate\` on ${new Date().toISOString().slice(0, 10)}, seed ${SEED}, ${lots} lots a line. Worlds are simulated
by core/src/calibrate; each departs from what the models assume in one way.

## Height

How often the truth lay within the band of eight in ten, how wide that band was, and the pinball loss of the logarithm
(less is better) beside two plain forecasters: the last value plus what the species grows, and the last value. Both are
given the best band that their own errors allow, which no grower could know; Kauri is not.

| world | samples | ahead | held | width | loss | last + species | last value |
|---|---|---|---|---|---|---|---|
${rows.join('\n')}

## Grades

How often the count of a grade lay within its band of eight in ten, four weeks on, and how wide the band was of all that
stood; lots of 500 trees lifted and graded to the last one, ${Math.round(lots / 4)} lots a line.

| world | samples | held | width |
|---|---|---|---|
${grades.join('\n')}

## Sowing desk

How often “nine in ten” was kept, by lots the nursery had of its own (rows) and how much alike the seeds of a lot are in
truth (columns); ${lots * 10} nurseries each.

| own lots | ρ 0.03 | ρ 0.05 (assumed) | ρ 0.1 |
|---|---|---|---|
${desk.join('\n')}

## Lifting window

How often the close of a winter's window (common alder) lay within its band of eight in ten, by years of the nursery's own
weather; buds burst 7 days from the model's day, two winters in three; ${Math.round(lots / 5)} winters a line.

| place | years of weather | held | width |
|---|---|---|---|
${lifting.join('\n')}
`;
  const file = join(root, 'docs/calibration.md');
  writeFileSync(file, await format(text, { ...(await resolveConfig(file)), filepath: file }));
  console.log(`Written: ${file}`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
