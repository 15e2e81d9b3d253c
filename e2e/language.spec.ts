import { choose, expect, planPart, signIn, speaking, station, test } from './kauri';

test('a language is chosen at the door, holds through sign-in and reload, and is changed in the menu', async ({
  page,
  demo,
}) => {
  await page.goto(demo.url);
  await page.getByRole('combobox', { name: 'Language' }).selectOption({ label: 'Deutsch' });
  await expect(page.getByRole('heading', { name: 'Anmelden' })).toBeVisible();
  await page.getByRole('button', { name: /^Orla, / }).click();
  await expect(page.getByRole('heading', { name: /^Heute/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: /^Heute, Di\., 24\. Nov\./ })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await page.getByRole('button', { name: /^Orla, Eigentümer/ }).click();
  await page.getByRole('menuitem', { name: 'British English' }).click();
  await expect(page.getByRole('heading', { name: 'Today, Tue 24 Nov' })).toBeVisible();
});

test.describe('a nursery that speaks Spanish', () => {
  test.use({ expected: { faults: [/422/] } });
  test('opens in it, from its worker’s forecasts to what its server refuses', async ({ page, demo }) => {
    await signIn(page, demo, 'nahuel@piedraclara.example', '/');
    await expect(page).toHaveTitle(/^Hoy · Vivero Piedra Clara/);
    await page
      .getByRole('navigation', { name: 'Estaciones' })
      .getByRole('link', { name: /^Cultivo/ })
      .click();
    await page.getByTestId('lots').getByText('25-NPU-01').click();
    // Worked out in the worker, and in the sheet below it the server’s own words.
    await expect(page.getByRole('main')).toContainText(/Seguir creciendo; arrancar desde el/);
    await page.keyboard.press('c');
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('Plántulas en pie ahora').fill('9000');
    await sheet.getByRole('button', { name: 'Guardar el recuento' }).click();
    await expect(sheet).toContainText(/9\s?000 contadas, pero solo|9000 contadas, pero solo/);
  });
});

test('an owner sets what the nursery speaks; whoever chose for themselves keeps theirs', async ({
  page,
  browser,
  own,
}) => {
  await signIn(page, own, 'orla@withybeck.example', '/people');
  await choose(page.getByLabel('Language of the nursery'), 'Español');
  await expect(page.getByText('The nursery speaks Español now.')).toBeVisible();
  for (const [chosen, heading] of [
    [null, /^Hoy/],
    ['en-GB', /^Today/],
  ] as const) {
    const context = await browser.newContext({ locale: 'en-GB', serviceWorkers: 'block' });
    try {
      const other = await context.newPage();
      if (chosen) await speaking(other, chosen);
      await signIn(other, own, 'tam@withybeck.example', '/');
      await expect(other.getByRole('heading', { name: heading })).toBeVisible();
    } finally {
      await context.close();
    }
  }
});

/** Pages that are wide with words. */
const pages = [
  '/today',
  '/grow',
  '/yard',
  '/seed',
  '/plan',
  '/roots',
  '/lift',
  '/lift/lifted',
  '/planted',
  '/people',
];

/** More of them: looked at where words are longest and a page is narrowest. */
const more = [
  '/lift/order',
  '/lift/load',
  '/planted/lived',
  '/planted/year',
  '/plan/when',
  '/plan/season',
  '/plan/costs',
  '/yard/weather',
  '/yard/media',
  '/seed/desk',
  '/seed/clock',
  '/learnt',
  '/records',
];

// Spanish is shorter than German: where that fits in the wide, it does.
for (const [tag, width] of [
  ['de', 390],
  ['de', 1280],
  ['es', 390],
] as const)
  test(`longer words overflow nowhere: ${tag}, ${width} wide`, async ({ page, demo }) => {
    await page.setViewportSize({ width, height: 844 });
    await speaking(page, tag);
    await signIn(page, demo, 'orla@withybeck.example');
    for (const path of tag === 'de' && width === 390 ? [...pages, ...more] : pages) {
      await page.goto(`${demo.url}${path}`);
      await expect(page.getByRole('main')).toBeVisible();
      await expect(page.getByRole('main')).toContainText(/[\s\S]{150,}/);
      // What is wider than the page, or than its own button, is found before anybody has to scroll for it.
      await expect
        .poll(
          () =>
            page.evaluate(() => {
              const wide = [document.scrollingElement!, document.querySelector('main')!]
                .filter((e) => e.scrollWidth > e.clientWidth + 1)
                .map((e) => e.tagName);
              const cut = [...document.querySelectorAll<HTMLElement>('button, a.act, a.act-main')]
                .filter((e) => e.checkVisibility() && e.clientWidth > 0 && e.scrollWidth > e.clientWidth + 2)
                .map((e) => e.innerText);
              return [...wide, ...cut];
            }),
          { message: path },
        )
        .toEqual([]);
    }
  });

test('the working of a lifting window is shown in any language', async ({ page, demo }) => {
  await speaking(page, 'es');
  await signIn(page, demo, 'isla@withybeck.example', '/lift');
  await page.getByRole('link', { name: /26-QPE-01/ }).click();
  await expect(page.getByRole('heading', { name: '26-QPE-01', level: 1 })).toBeVisible();
  const window = page.getByTestId('window-working');
  await window.getByText('Ver el cálculo').click();
  await expect(window.getByRole('listitem').first()).toBeVisible();
});

test('an idea is told beside its figure, and all of them with the words of the trade', async ({
  isla: page,
}) => {
  await station(page, 'Plan');
  await planPart(page, 'When to sow');
  await page.getByRole('button', { name: 'What is this: Route' }).click();
  await expect(page.getByTestId('idea')).toContainText('stage by stage');
  await page.getByRole('link', { name: 'All ideas and words' }).click();
  await expect(page.getByTestId('ideas').locator('#route')).toHaveAttribute('aria-current', 'true');
  await page.getByLabel('Find a word').fill('trench');
  await expect(page.getByTestId('terms')).toContainText('Heeling in');
  await expect(page.getByTestId('ideas')).toHaveCount(0);
  await page.getByLabel('Find a word').fill('xyzzy');
  await expect(page.getByText('Nothing here says that.')).toBeVisible();
});
