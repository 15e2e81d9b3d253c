import { readFile } from 'node:fs/promises';
import { dayOf, isoOf } from '@kauri/core';
import type { Locator, Page } from '@playwright/test';
import { v7 as newId } from 'uuid';
import {
  bedAt,
  benchAt,
  choose,
  expect,
  type Kauri,
  planned,
  planPart,
  saveTable,
  sheet,
  signIn,
  station,
  test,
  write,
} from './kauri';

/*
 * The January desk from an empty nursery, north and south: a yard, six orders, when to sow, a season planned with what does not fit and
 * what would free it, pinned, compared, chosen, begun, slipped and planned again. The main path by keys alone.
 */
test.use({ expected: { faults: [/ERR_CONNECTION|Failed to fetch|Failed to load resource|409|422/] } });

const OWNER = { email: 'rowan@testing.example', password: 'a long password' };
/** A day half a year on, in the south. */
const shifted = (iso: string, south: boolean) => (south ? isoOf(dayOf(iso) + 183) : iso);

async function openYard(page: Page, kauri: Kauri, south: boolean) {
  const nursery = newId();
  const home = south
    ? { latitudeDeg: -41.2, longitudeDeg: -71.4, elevationM: 780, timeZone: 'America/Argentina/Salta' }
    : { latitudeDeg: 54.6, longitudeDeg: -2.4, elevationM: 185, timeZone: 'Europe/London' };
  const person = { id: newId(), name: 'Rowan', ...OWNER };
  await write(
    page,
    kauri,
    'setup',
    {},
    {
      nursery: { id: nursery, name: 'New Yard', placeName: 'Somewhere', ...home, units: 'metric' },
      person,
    },
  );
  for (const place of [bedAt('Bed A', 0, null), bedAt('Bed B', 4, null), benchAt('Bench A', 9, 3000)])
    await write(page, kauri, 'addPlace', { nursery }, { id: newId(), place });
  const catalogue = await (await page.request.get(`${kauri.url}/api/nurseries/${nursery}/catalogue`)).json();
  const id = (list: { id: string }[], is: (one: never) => boolean) => list.find(is as never)!.id;
  return {
    nursery,
    alder: id(catalogue.species, ({ code }: { code: string }) => code === 'ALN'),
    bed: id(catalogue.places, ({ place }: { place: { name: string } }) => place.name === 'Bed A'),
  };
}

/** What is done at the desk in January: when to sow, what it costs, a season planned, compared, pinned, chosen; lists. */
async function atTheDesk(
  page: Page,
  {
    enter,
    plan,
  }: { enter: (name: string | RegExp) => Promise<void>; plan: (name: string) => Promise<Locator> },
) {
  await test.step('when to sow one of them, and what it costs by each route', async () => {
    await planPart(page, 'When to sow');
    const line = page.getByLabel('For', { exact: true });
    await choose(line, /Hill farm/);
    await expect(page.getByTestId('when-tag')).toContainText(/^Sow /, { timeout: 30_000 });
    await planPart(page, 'Beds or pots');
    const cheapest = page.getByTestId('costs').getByRole('listitem').first();
    await expect(cheapest).toContainText(/A tree costs £\s?\d/, { timeout: 30_000 });
    await expect(cheapest).toContainText('It leaves');
  });

  await test.step('planned: what does not fit, what would free it, and what buying in changes', async () => {
    await planPart(page, 'The season');
    const own = await plan('Our own');
    await expect(own.getByTestId('figures')).toContainText(/[345] of 6/);
    await page
      .getByRole('button', { name: /short$/ })
      .last()
      .focus();
    await page.keyboard.press('Enter');
    const why = page.getByTestId('line-why');
    await expect(why.getByTestId('frees')).toContainText(/more of bed like Bed A from .* would serve/);
    await page.getByLabel(/^A bought tree costs/).fill('0,8');
    const bought = await plan('Bought in');
    await expect(bought.getByTestId('figures')).toContainText('6 of 6');
    await expect(bought.getByTestId('figures')).toContainText('Bought in');
    await page.reload();
    await expect(page.getByTestId('figures')).toHaveCount(2);
    await page.getByRole('region', { name: 'Our own' }).getByRole('button', { name: 'Choose it' }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Our own' }).getByText('the plan now')).toBeVisible();
  });

  const block = page.getByRole('button', { name: /^Common alder, planned/ }).first();
  await test.step('one moved by keys and so pinned, then planned again around it', async () => {
    await planPart(page, 'The board');
    const before = (await block.getAttribute('aria-label'))!;
    await block.press('ArrowRight');
    await expect(block).not.toHaveAttribute('aria-label', before);
    const sheets = page.waitForEvent('download');
    await enter('On paper, A3');
    expect((await readFile(await (await sheets).path())).subarray(0, 5).toString()).toBe('%PDF-');
    await planPart(page, 'The season');
    await page.getByLabel(/^A bought tree costs/).fill('');
    const again = await plan('Around it');
    await enter(/planned already/);
    await expect(page.getByTestId('line-why')).toContainText('of what is pinned or begun already');
    await again.getByRole('button', { name: 'Choose it' }).click();
    await expect(again.getByText('the plan now')).toBeVisible();
  });

  await test.step('lists on paper and as a table', async () => {
    await planPart(page, 'Lists');
    await expect(page.getByTestId('on-hand')).toContainText('Seed of Common alder');
    await expect(page.getByTestId('treatments')).toContainText('Hornbeam');
    const paper = page.waitForEvent('download');
    await enter('On paper');
    const bytes = await readFile(await (await paper).path());
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    const table = page.waitForEvent('download');
    await saveTable(page.getByRole('button', { name: 'As a table' }));
    const rows = (await readFile(await (await table).path(), 'utf8')).trim().split('\r\n');
    expect(rows[0]).toContain('date,step,species');
    expect(rows.length).toBeGreaterThan(5);
  });
}

for (const south of [false, true])
  test(`a season from an empty yard to a plan begun and planned again, ${south ? 'south' : 'north'}`, async ({
    page,
    empty,
  }) => {
    test.slow();
    const { nursery, alder, bed } = await openYard(page, empty, south);
    const from = shifted('2027-12-01', south);
    const until = shifted('2028-02-10', south);
    await signIn(page, empty, OWNER.email, '/', OWNER.password);
    await station(page, 'Plan');
    const enter = async (name: string | RegExp) => {
      await page.getByRole('button', { name }).focus();
      await page.keyboard.press('Enter');
    };
    const plan = async (name: string) => {
      await page.getByLabel('Name', { exact: true }).fill(name);
      await enter('Plan the season');
      const of = page.getByRole('region', { name });
      await planned(of);
      return of;
    };

    await test.step('six orders, one larger than the yard', async () => {
      await page.getByRole('button', { name: 'Tables in and out' }).click();
      await sheet(page)
        .getByLabel('Or lines pasted, with their headings')
        .fill(
          [
            'buyer,species,count,on,until,from_cm,form,price',
            `Hill farm,Alnus glutinosa,120,${from},${until},15,bare-root,0.9`,
            `Low farm,Grey alder,100,${from},${until},15,bare-root,0.9`,
            `A school,Rowan,40,${from},${until},,bare-root,1.2`,
            `A parish,Hornbeam,60,${from},${until},,bare-root,1.1`,
            `A hedger,Silver birch,4000,${from},${until},15,bare-root,0.6`,
            `A garden,Common alder,30,${shifted('2027-09-20', south)},${shifted('2027-11-20', south)},,plug,1`,
          ].join('\n'),
        );
      await sheet(page)
        .getByRole('button', { name: /^Take 6 orders/ })
        .click();
      await expect(page.getByTestId('orders')).toContainText('A hedger');
    });

    if (south) {
      await planPart(page, 'The season');
      const own = await plan('Our own');
      await own.getByRole('button', { name: 'Choose it' }).click();
      await expect(own.getByText('the plan now')).toBeVisible();
    } else await atTheDesk(page, { enter, plan });

    /** First day of a planned sowing, as the server has it. */
    const sowings = async () => {
      const answer = await page.request.get(`${empty.url}/api/nurseries/${nursery}/plan`);
      const { plan: kept } = await answer.json();
      return kept.sowings as {
        speciesId: string;
        pinned: boolean;
        stages: { from: string; placeId: string }[];
      }[];
    };
    await test.step('the first week comes: Today asks, it is sown, and its lot stands for it', async () => {
      const first = (await sowings()).find((of) => of.speciesId === alder && (of.pinned || south))!;
      const on = first.stages[0].from;
      await page.goto('about:blank');
      await empty.stop();
      await empty.startAgain(isoOf(dayOf(on) + 1));
      await signIn(page, empty, OWNER.email, '/', OWNER.password);
      await station(page, 'Today');
      await expect(page.getByText(/^Sow common alder as planned/).first()).toBeVisible();
      await write(
        page,
        empty,
        'sowLot',
        { nursery },
        {
          id: newId(),
          code: 'ALDER',
          speciesId: alder,
          sownOn: on,
          seedState: 'ready',
          targetHeightCm: null,
          seeds: 600,
          stage: { kind: 'bed', id: newId(), placeId: bed, densityPerM2: 150, areaM2: 0.8 },
        },
      );
      await page.reload();
      await station(page, 'Plan');
      await planPart(page, 'The board');
      await page
        .getByRole('button', { name: /^Common alder, planned/ })
        .first()
        .click();
      const as = page.getByTestId('sowing').getByLabel('It is sown, as');
      await choose(as, /ALDER/);
      await expect(page.getByText('Sown as ALDER: the lot stands for it from now on.')).toBeVisible();
    });

    await test.step('another slips: Today says so, and it is planned again for a week to come', async () => {
      const left = (await sowings()).map(({ stages: [{ from: on }] }) => on).sort();
      const late = isoOf(dayOf(left[0]) + 9);
      await page.goto('about:blank');
      await empty.stop();
      await empty.startAgain(late);
      await signIn(page, empty, OWNER.email, '/', OWNER.password);
      await station(page, 'Today');
      await expect(page.getByText(/Was planned for the week of/).first()).toBeVisible();
      await station(page, 'Plan');
      await planPart(page, 'The season');
      const anew = await plan('Anew');
      await expect(anew.getByTestId('change')).toContainText(/in another week, place or number|taken out/);
      await anew.getByRole('button', { name: 'Choose it' }).click();
      await expect(anew.getByText('the plan now')).toBeVisible();
      for (const { stages } of await sowings())
        expect(stages[0].from > late || left.includes(stages[0].from)).toBe(true);
      expect((await sowings()).some(({ stages: [{ from: on }] }) => on < isoOf(dayOf(late) - 7))).toBe(false);
    });

    await test.step('what could be promised to somebody on the telephone', async () => {
      await planPart(page, 'Free to promise');
      await choose(page.getByLabel('Species', { exact: true }), 'Common alder');
      await choose(page.getByLabel('Form'), 'bare-root');
      await page.getByLabel('On', { exact: true }).fill(from);
      // Seed that is not up yet is promised to nobody.
      await expect(page.getByTestId('decision')).toContainText('Nothing can be promised for that day');
    });
  });
