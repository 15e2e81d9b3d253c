import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, openLot, planPart, seedPart, sheet, signIn, station, test, yardPart } from './kauri';

type Scheme = 'light' | 'dark';

/** Puts the page into a scheme, all at once. */
async function dress(page: Page, scheme: Scheme): Promise<void> {
  await page.evaluate((theme) => {
    document.documentElement.dataset.theme = theme;
    for (const change of document.getAnimations())
      if (change.effect?.getComputedTiming().endTime !== Infinity) change.finish();
  }, scheme);
}

/**
 * No serious or critical fault, by axe's rules for WCAG 2 A and AA. In the dark only the colours are others: the same page
 * is looked at again for them; sheets are made of the same parts, and a few stand for all. Under an open sheet the page is
 * out of reach, and was looked at before.
 */
async function expectSound(page: Page, what: string, { inDark = false } = {}) {
  const hasSheet = (await page.locator('[role=dialog]').count()) > 0;
  const faults = async (scheme: Scheme) => {
    const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
    if (hasSheet) axe.include('[role=dialog]');
    if (scheme === 'dark') axe.withRules(['color-contrast', 'link-in-text-block']);
    else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']);
    const { violations } = await axe.analyze();
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${scheme}: ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  };
  const found = await faults('light');
  if (inDark || !hasSheet) {
    await dress(page, 'dark');
    found.push(...(await faults('dark')));
    await dress(page, 'light');
  }
  expect(found, what).toEqual([]);
}

// Long looks, each in a browser of its own.
test.describe.configure({ mode: 'parallel' });

test('every view of the day and the lots is sound in both schemes', async ({ page, demo }) => {
  await page.goto(demo.url);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await expectSound(page, 'sign-in');
  await signIn(page, demo, 'isla@withybeck.example', '/');
  await expect(page.getByText('Act now')).toBeVisible();
  await expectSound(page, 'today');
  for (const name of ['Rules', 'Calendar']) {
    await page.getByRole('button', { name, exact: true }).click();
    await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
    await expectSound(page, name);
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);
  }
  await page
    .getByRole('button', { name: /^Done:/ })
    .first()
    .click();
  await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
  await expectSound(page, 'an act marked', { inDark: true });
  await page.keyboard.press('Escape');
  await station(page, 'Yard');
  await expect(page.getByTestId('plan')).toBeVisible();
  await expectSound(page, 'a bed');
  await page.getByTestId('places').getByText('Bench 1', { exact: true }).click();
  await expectSound(page, 'a bench');
  for (const add of ['Add bed', 'Add bench']) {
    await page.getByRole('link', { name: add }).click();
    await expect(sheet(page).getByLabel('Name', { exact: true })).toBeVisible();
    await expectSound(page, add);
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);
  }
  await openLot(page, '25-ALN-02');
  await page.getByText('Show working').click();
  await expectSound(page, 'a root-bound lot');
  for (const key of ['c', 'm', 'r', 's', 'w', 'e', 'l', 'x']) {
    await page.keyboard.press(key);
    await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
    await expectSound(page, `sheet ${key}`);
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);
  }
  await page.getByTestId('what-if-open').click();
  await expect(sheet(page).getByTestId('gained')).toBeVisible();
  await expectSound(page, 'what if');
  await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await expect(sheet(page).getByLabel('Species')).toBeVisible();
  await expectSound(page, 'new lot', { inDark: true });
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await page.getByRole('link', { name: 'How well past forecasts held' }).click();
  await expect(page.getByTestId('held')).toBeVisible();
  await expectSound(page, 'past forecasts');
  await openLot(page, '25-ALN-02');
  await page.getByRole('link', { name: 'What your lots teach' }).click();
  await expect(page.getByTestId('lessons').getByRole('listitem').first()).toBeVisible();
  await expectSound(page, 'values learnt');
});

test('every view of roots, plan, lifting and planting is sound in both schemes', async ({ page, demo }) => {
  await signIn(page, demo, 'isla@withybeck.example');
  await station(page, 'Roots');
  await page.getByRole('link', { name: 'Compare', exact: true }).click();
  await expect(page.getByTestId('roots-compared')).toBeVisible();
  await expectSound(page, 'roots compared');
  await page.getByTestId('root-lots').getByText('25-ALN-02').click();
  await expect(page.getByTestId('plants')).toBeVisible();
  await expectSound(page, 'roots of a lot');
  await page.keyboard.press('r');
  await sheet(page).getByTestId('rosette').press('Enter');
  await expectSound(page, 'the root bench', { inDark: true });
  await sheet(page).getByText('At a glance').click();
  await expectSound(page, 'a plant at a glance');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Scorecards and terms' }).click();
  await expect(sheet(page).getByTestId('criteria')).toBeVisible();
  await expectSound(page, 'scorecards');
  await page.keyboard.press('Escape');
  await station(page, 'Plan');
  await expect(page.getByTestId('met').first()).toBeVisible();
  await expectSound(page, 'orders');
  await page.getByRole('button', { name: 'Change' }).click();
  await expect(sheet(page).getByLabel('Buyer')).toBeVisible();
  await expectSound(page, 'an order changed');
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  await page.getByRole('link', { name: 'Free to promise' }).click();
  await expect(page.getByTestId('along')).toBeVisible();
  await expectSound(page, 'free to promise');
  for (const [part, landmark] of [
    ['When to sow', 'ways'],
    ['Beds or pots', 'costs'],
    ['The season', 'season'],
    ['The board', 'board'],
    ['Lists', 'on-hand'],
    ['Routes', 'routes'],
  ]) {
    await planPart(page, part);
    await expect(page.getByTestId(landmark)).toBeVisible();
    await expectSound(page, part);
  }
  await station(page, 'Lift');
  await expect(page.getByTestId('lots').first()).toBeVisible();
  await expectSound(page, 'lift');
  await page.getByRole('link', { name: 'In what order' }).click();
  await expect(page.getByTestId('lifting-order')).toBeVisible();
  await expectSound(page, 'lifting in order');
  await page.getByRole('link', { name: 'Lifted', exact: true }).click();
  await expect(page.getByTestId('sendings')).toBeVisible();
  await expectSound(page, 'lifted');
  await page.getByRole('link', { name: 'To load' }).click();
  await expect(page.getByTestId('stops')).toBeVisible();
  await expectSound(page, 'to load');
  await station(page, 'Planted');
  await page.getByTestId('plantings').getByText('Weir bank').click();
  await expect(page.getByTestId('planting-plan')).toBeVisible();
  await expectSound(page, 'a planting');
  for (const act of ['Plant trees here', 'Walk it', 'Change']) {
    await page.getByRole('button', { name: act }).click();
    await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
    await expectSound(page, act);
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);
  }
  await page.getByRole('link', { name: 'What lived' }).click();
  await expect(page.getByTestId('lived')).toBeVisible();
  await expectSound(page, 'what lived');
  await page.getByRole('link', { name: /Season/ }).click();
  await expectSound(page, 'records');
  await page.goto(new URL('/words', page.url()).href);
  await expect(page.getByTestId('ideas')).toBeVisible();
  await expectSound(page, 'ideas and words');
  await page.keyboard.press('?');
  await expect(sheet(page).getByRole('heading', { name: 'Keys' })).toBeVisible();
  await expectSound(page, 'keys');
  await page.goto(`${demo.url}/account`);
  await expect(page.getByTestId('browsers')).toBeVisible();
  await expectSound(page, 'one’s account');
  await signIn(page, demo, 'orla@withybeck.example', '/people');
  await expect(page.getByTestId('people')).toBeVisible();
  await expectSound(page, 'people');
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  await expect(sheet(page).getByLabel('Who')).toBeVisible();
  await expectSound(page, 'an invitation', { inDark: true });
});

test('every part of the yard is sound in both schemes', async ({ page, demo }) => {
  await signIn(page, demo, 'isla@withybeck.example');
  for (const part of ['Site plan', 'Light', 'Weather', 'Water', 'Build', 'Containers', 'Media']) {
    await yardPart(page, part);
    await expectSound(page, part);
  }
  await yardPart(page, 'Build');
  await page.getByRole('button', { name: 'One more of Small module' }).click();
  await expect(page.getByTestId('buy')).toBeVisible();
  await expectSound(page, 'a build sheet');
});

test('every part of the seed room is sound in both schemes', async ({ page, demo }) => {
  await signIn(page, demo, 'isla@withybeck.example');
  const drawn = {
    Store: 'decision',
    Dormancy: 'decision',
    'Sowing desk': 'bed-answer',
    'Coming up': 'decision',
    Cuttings: 'rooting',
    'Air layers': 'decision',
    Labels: 'label-lots',
    Species: 'own-species',
  };
  for (const [part, ready] of Object.entries(drawn)) {
    await seedPart(page, part);
    await expect(page.getByTestId(ready).first()).toBeVisible();
    await expectSound(page, part);
  }
  await seedPart(page, 'Store');
  for (const button of ['Test', 'Take out or weigh', 'Treat']) {
    await page.getByRole('button', { name: button, exact: true }).click();
    await expect(sheet(page).getByRole('heading').first()).toBeVisible();
    await expectSound(page, button);
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toHaveCount(0);
  }
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test('nothing runs out of the side, and a record is made with a thumb', async ({ isla: page }) => {
    const fits = async (what: string) => {
      // Panes that scroll by themselves hide what runs out of them from the page's own width.
      const over = await page.evaluate(() =>
        [
          ...document.querySelectorAll(
            'main button, main a, main p, [role=dialog] button, [role=dialog] input, header *',
          ),
        ]
          .filter((el) => el.getClientRects().length && !el.closest('.sr-only, .overflow-x-auto, svg'))
          .filter((el) => el.getBoundingClientRect().right > innerWidth + 1)
          .map((el) => el.textContent?.trim().slice(0, 40) || el.tagName),
      );
      expect(over, what).toEqual([]);
    };
    await fits('today');
    await station(page, 'Grow');
    await fits('list');
    await page.getByTestId('lots').getByText('26-SOR-03', { exact: true }).click();
    await expect(page.getByTestId('ground-line')).toBeVisible();
    await fits('lot');
    await page.getByRole('button', { name: /^Pull plugs/ }).click();
    await fits('pull sheet');
    const button = sheet(page).getByRole('button', { name: /2 holds/ });
    const { width, height } = (await button.boundingBox())!;
    expect(Math.min(width, height)).toBeGreaterThanOrEqual(44);
    await button.click();
    await expect(sheet(page).getByTestId('scores')).toContainText('2 holds');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'All lots' }).click();
    await expect(page.getByTestId('lots')).toBeVisible();
    await station(page, 'Yard');
    await fits('yard');
    await page.getByTestId('places').getByText('Bench 1', { exact: true }).click();
    await fits('bench');
    for (const part of ['Site plan', 'Light', 'Water', 'Build', 'Containers', 'Media']) {
      await yardPart(page, part);
      await fits(part);
    }
    await station(page, 'Planted');
    await fits('plantings');
    await page.getByTestId('plantings').getByText('Weir bank').click();
    await expect(page.getByTestId('planting-plan')).toBeVisible();
    await fits('a planting');
    await page.getByRole('link', { name: 'What lived' }).click();
    await fits('what lived');
    await station(page, 'Roots');
    await fits('roots');
    await page.getByTestId('root-lots').getByText('26-SOR-03', { exact: true }).click();
    await page.getByRole('button', { name: /^Pull a plant/ }).click();
    await expect(sheet(page).getByTestId('rosette')).toBeVisible();
    await fits('the root bench');
    await page.keyboard.press('Escape');
    await station(page, 'Lift');
    await fits('lift');
    await station(page, 'Plan');
    await page.getByTestId('orders').getByText('Beckside parish').first().click();
    await expect(page.getByTestId('met').first()).toBeVisible();
    await fits('an order');
    await page.getByRole('button', { name: 'Change' }).click();
    await expect(sheet(page).getByLabel('Buyer')).toBeVisible();
    await fits('an order changed');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Free to promise' }).click();
    await expect(page.getByTestId('along')).toBeVisible();
    await fits('free to promise');
    for (const part of [
      'Store',
      'Dormancy',
      'Sowing desk',
      'Coming up',
      'Cuttings',
      'Air layers',
      'Labels',
      'Species',
    ]) {
      await seedPart(page, part);
      await fits(part);
    }
    await seedPart(page, 'Coming up');
    await page.getByTestId('rising').getByText('26-SOR-11', { exact: true }).click();
    await expect(page.getByTestId('decision')).toBeVisible();
    await fits('a lot coming up');
    await page.getByRole('button', { name: 'Count', exact: true }).click();
    await sheet(page).getByRole('button', { name: 'Ten more' }).click();
    await expect(sheet(page).getByRole('textbox', { name: 'Seedlings standing now' })).toHaveValue('10');
    await fits('count sheet');
  });
});

test('each main task is done by keyboard alone', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  const focusOn = async (target: ReturnType<Page['getByRole']>) => {
    for (let i = 0; i < 80; i++) {
      if (await target.evaluate((el) => el === document.activeElement)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error('The focus never came there.');
  };
  // Find a lot, go to it.
  await page.keyboard.press('/');
  await page.keyboard.type('sor-03');
  await expect(page.getByRole('option').first()).toContainText('26-SOR-03');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '26-SOR-03', level: 1 })).toBeVisible();
  // Add a bench.
  await page.keyboard.press('2');
  await focusOn(page.getByRole('link', { name: 'Add bench' }));
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByLabel('Name', { exact: true })).toBeFocused();
  await page.keyboard.type('Bench 9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Bench 9', level: 1 })).toBeVisible();
  // Walk the plan.
  await focusOn(page.getByTestId('plan').getByRole('button', { name: /Bench 9/ }));
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Bench 9', level: 1 })).toHaveCount(0);
  // Sow.
  await page.keyboard.press('n');
  await expect(sheet(page).getByLabel('Species')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toHaveCount(0);
  // The list, by its arrows.
  await page.keyboard.press('5');
  const first = page.getByTestId('lots').getByRole('link').first();
  await focusOn(first);
  const before = await page.getByRole('heading', { level: 1 }).innerText();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(before);
});
