import { fastest, ms, quantile } from './measure.mjs';

const PARTS = 200;
const TREES = 100;

/** Survival of twenty thousand trees by species, from the counts of their last walks. */
export function benchSurvival(core) {
  const cases = Array.from({ length: PARTS }, (_, i) => {
    const dead = (i * 37) % (TREES / 2);
    return { group: `species ${i % 20}`, alive: TREES - dead, dead };
  });
  const took = fastest(() => core.survivalGroups(cases));
  return [['survival of 20 000 trees compared, 20 groups', ms(took), '', '', '≤ 1 s']];
}

/** From a tap on a walk until the server has it. */
export async function benchWalk(context, url) {
  const page = await context.newPage();
  await page.goto(`${url}/planted`);
  await page.getByTestId('plantings').getByText('Weir bank').click();
  await page.getByRole('button', { name: 'Walk it' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByTestId('tree').waitFor();
  const kept = [];
  for (let i = 0; i < 30; i++) {
    const answered = page.waitForResponse((response) => /\/marks$/.test(response.url()));
    // Also of a tree found dead before: nobody has to be asked whether it is missing.
    await page.getByRole('button', { name: /^missing/ }).click();
    const request = (await answered).request();
    await request.response().then((response) => response.finished());
    kept.push(request.timing().responseEnd);
  }
  await page.close();
  return [['a tap on a walk, until it is kept, p95', ms(quantile(kept, 0.95)), '', '', '≤ 50 ms']];
}
