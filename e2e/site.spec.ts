import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import {
  choose,
  expect,
  hearNothing,
  type Kauri,
  saveTable,
  setUp,
  sheet,
  signIn,
  test,
  yardPart,
} from './kauri';

/*
 * The yard planned before any seed: drawn from nothing, a barn on it, beds designed and printed, drip within
 * the tap, light looked at; all of it there again after a reload, and in and out as GeoJSON.
 */
test.use({ expected: { faults: [/409|422/] } });

const said = (page: Page) => page.getByTestId('plan-said');
const thing = (page: Page, name: RegExp) => page.getByTestId('plan').getByRole('button', { name });
const chosen = (page: Page) => page.getByLabel('Chosen on the plan');

/** Puts figures into fields of the thing chosen, and waits until each is kept. */
async function set(page: Page, figures: Record<string, string>) {
  for (const [label, value] of Object.entries(figures)) {
    const field = chosen(page).getByRole('textbox', { name: new RegExp(`^${label}( |$)`) });
    await field.fill(value);
    await field.press('Enter');
    await expect(said(page)).not.toContainText('Saving');
  }
}

async function add(page: Page, what: string) {
  await choose(page.getByLabel('Add to the plan'), what);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(said(page)).toContainText('1 thing chosen');
}

/** Where every place and thing stands, as the server has it. */
async function kept({ database }: Kauri) {
  const places = await database.query(
    `select name, kind, east_m, north_m, angle_deg, design from place order by name`,
  );
  const site = await database.query(`select value from nursery_value where kind = 'site'`);
  return { places: places.rows, elements: site.rows[0]?.value.elements ?? [] };
}

test('a yard from nothing: site, barn, two designs, sheets, drip, light', async ({ page, empty }) => {
  test.setTimeout(480_000);
  await setUp(page, empty);

  await test.step('outline, barn and standpipe', async () => {
    await yardPart(page, 'Site plan');
    await expect(page.locator('main')).toContainText('Nothing is drawn yet');
    await add(page, 'Outline');
    await set(page, { 'West edge': '0', 'South edge': '0', 'West to east': '30', 'South to north': '20' });
    await add(page, 'Building');
    await set(page, { Name: 'Barn', Height: 'tall' });
    await expect(chosen(page)).toContainText('A number from 0 to 100.');
    await set(page, {
      Height: '8',
      'West edge': '0',
      'South edge': '4',
      'West to east': '4',
      'South to north': '12',
    });
    await expect(thing(page, /^Barn, building, 8/)).toBeVisible();
    await add(page, 'Standpipe');
    await expect(thing(page, /^Standpipe/)).toBeVisible();
  });

  await test.step('two designs: two tiers, and a small module', async () => {
    await page.getByRole('link', { name: 'Places' }).click();
    await page.getByRole('link', { name: 'Add a bed' }).click();
    const form = sheet(page);
    await form.getByLabel('Name', { exact: true }).fill('Bed 1');
    await form.getByRole('textbox', { name: /^Length/ }).fill('3000');
    await form.getByTestId('bed-more').click();
    await form.getByLabel('How many feet').fill('4');
    await choose(form.getByLabel('Feet', { exact: true }), 'Bricks');
    await choose(form.getByLabel('Filled with'), 'Coarse sand and topsoil');
    await expect(form).toContainText(/Each foot carries \d+ kg and bears 300 kg/);
    await expect(form).toContainText('This medium falls through a 13 mm mesh');
    await choose(form.getByLabel('Filled with'), 'Living mix: chips, compost, castings');
    await form.getByLabel('How many feet').fill('10');
    await expect(form).not.toContainText('Each foot carries more');
    await expect(form.getByTestId('timber-schools')).toContainText('Durable, untreated (this one)');
    await expect(form.getByTestId('lid-meets')).toContainText(/tallest tenth/);
    await form.getByRole('button', { name: 'Keep as a design' }).click();
    await form.getByLabel('Design’s name').fill('Two tiers');
    await form.getByRole('button', { name: 'Keep as a new design' }).click();
    await expect(page.getByText('Two tiers, version 1, kept.')).toBeVisible();
    await form.getByRole('textbox', { name: 'East' }).fill('5');
    await form.getByRole('textbox', { name: 'North' }).fill('5');
    await form.getByRole('button', { name: 'Add the bed' }).click();
    await expect(page.getByRole('heading', { name: 'Bed 1', level: 1 })).toBeVisible();
    await expect(page.locator('main')).toContainText('Built from Two tiers, version 1');

    await page.getByRole('link', { name: 'Add bed' }).click();
    await form.getByRole('textbox', { name: /^Length/ }).fill('1200');
    await form.getByRole('textbox', { name: /^Width/ }).fill('600');
    await form.getByTestId('bed-more').click();
    await form.getByRole('button', { name: 'Take tier 2 off' }).click();
    await form.getByLabel('Bearers across').fill('1');
    await form.getByLabel('How many feet').fill('4');
    await form.getByLabel('Tiers that lift off').fill('0');
    await form.getByRole('button', { name: 'Keep as a design' }).click();
    await form.getByLabel('Design’s name').fill('Module');
    await form.getByRole('button', { name: 'Keep as a new design' }).click();
    await expect(page.getByText('Module, version 1, kept.')).toBeVisible();
    await page.keyboard.press('Escape');
  });

  await test.step('their build sheet, on paper and as a table', async () => {
    await yardPart(page, 'Build');
    await page.getByRole('button', { name: 'One more of Two tiers' }).click();
    for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'One more of Module' }).click();
    await expect(page.getByTestId('decision')).toContainText(/Buy \d+ boards/);
    await expect(page.getByTestId('cut-list')).toContainText('Long side, tier 1');
    await expect(page.getByTestId('steps')).toContainText('ear protection');
    const [pdf] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Build sheet, PDF' }).click(),
    ]);
    const bytes = await readFile(await pdf.path());
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(bytes.length).toBeGreaterThan(20_000);
    const [csv] = await Promise.all([
      page.waitForEvent('download'),
      saveTable(page.getByRole('button', { name: 'As a table' })),
    ]);
    const lines = (await readFile(await csv.path(), 'utf8')).split('\r\n');
    expect(lines[0]).toBe('list,bed,what,size,length_mm,count,each');
    expect(lines).toContain('cut,Module,"Long side, tier 1",50x200,1200,8,');
    // Boards sold shorter than a side: refused in a sentence, and the sheet comes back with the prices.
    await page.getByText('Prices and sizes sold').click();
    await page.getByLabel('Board lengths sold').fill('2400');
    await page.getByRole('button', { name: 'Keep prices' }).click();
    await expect(page.getByRole('alert')).toContainText('is longer than the longest board');
    await page.getByLabel('Board lengths sold').fill('2400; 3000; 4800');
    await page.getByRole('button', { name: 'Keep prices' }).click();
    await expect(page.getByTestId('buy')).toBeVisible();
    await page.reload();
    await expect(page.getByTestId('buy')).toBeVisible();
  });

  await test.step('eight beds and two benches, set out and dragged', async () => {
    await yardPart(page, 'Site plan');
    await thing(page, /^Bed 1,/).click();
    await chosen(page)
      .getByRole('textbox', { name: /^Columns/ })
      .fill('2');
    await chosen(page).getByRole('textbox', { name: /^Rows/ }).fill('4');
    await chosen(page).getByRole('textbox', { name: /^Path/ }).fill('0.8');
    await page.getByRole('button', { name: 'Set out copies' }).click();
    await expect(thing(page, /^Bed 8,/)).toBeVisible();
    await expect(page.locator('main')).toContainText('Nothing collides, and a barrow passes everywhere.');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(thing(page, /^Bed 8,/)).toHaveCount(0);
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(thing(page, /^Bed 8,/)).toBeVisible();
    await add(page, 'Bench');
    await set(page, { East: '16', North: '3' });
    await page.getByRole('button', { name: 'Duplicate' }).click();
    await expect(thing(page, /^Bench 2,/)).toBeVisible();

    // A bed dragged onto the barn is said to stand there, and undone stands where it stood.
    const bed = await thing(page, /^Bed 1,/).boundingBox();
    const barn = await thing(page, /^Barn/).boundingBox();
    await page.mouse.move(bed!.x + bed!.width / 2, bed!.y + bed!.height / 2);
    await page.mouse.down();
    await page.mouse.move(barn!.x + barn!.width / 2, barn!.y + barn!.height / 2, { steps: 8 });
    await page.mouse.up();
    await expect(page.getByTestId('plan-faults')).toContainText('Bed 1 stands on Barn.');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByTestId('plan-faults')).not.toContainText('stands on Barn');
    await expect(page.getByTestId('capacity')).toContainText(/8 beds/);
    await expect(page.getByTestId('capacity')).toContainText(/[1-9]\d* trays/);
  });

  await test.step('by keyboard alone: a bed is placed, moved, and its figures read', async () => {
    // The list of what to add, its first bed, then the button beside it.
    await page.getByLabel('Add to the plan').focus();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByRole('option', { name: 'What to add' })).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Add to the plan')).toBeFocused();
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await expect(chosen(page).getByRole('heading', { level: 2 }).first()).toHaveText(/Bed (9|10)/);
    const name = await chosen(page).getByRole('heading', { level: 2 }).first().innerText();
    await thing(page, new RegExp(`^${name},`)).focus();
    await page.keyboard.press('Shift+ArrowUp');
    await page.keyboard.press('r');
    await expect(chosen(page).getByRole('textbox', { name: /^Angle/ })).toHaveValue('90');
    await chosen(page).getByRole('link', { name: 'What it holds' }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByTestId('bed-figures')).toContainText('Medium to buy');
    await page.goBack();
    await expect(thing(page, new RegExp(`^${name},`))).toBeVisible();
    await thing(page, new RegExp(`^${name},`)).focus();
    await page.keyboard.press('Delete');
    await expect(thing(page, new RegExp(`^${name},`))).toHaveCount(0);
    const before = (await kept(empty)).places.find((p) => p.name === 'Bed 3');
    await thing(page, /^Bed 3,/).focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Shift+ArrowUp');
    await expect(said(page)).not.toContainText('Saving');
    await expect
      .poll(async () => {
        const now = (await kept(empty)).places.find((p) => p.name === 'Bed 3');
        return [now.east_m - before.east_m, now.north_m - before.north_m].map((m) => Math.round(m * 1000));
      })
      .toEqual([100, 1000]);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await expect
      .poll(async () => (await kept(empty)).places.find((p) => p.name === 'Bed 3').north_m)
      .toBe(before.north_m);
  });

  await test.step('drip to the tap’s limit', async () => {
    await yardPart(page, 'Water');
    await choose(page.getByLabel('Lay drip on'), 'Every bed without');
    await page.getByRole('button', { name: 'Lay', exact: true }).click();
    await expect(page.getByTestId('drips').getByRole('listitem')).toHaveCount(8);
    await expect(page.getByTestId('drip-figures')).toContainText('mm/h');
    // A tap that gives next to nothing: no zone takes the bed, and why is said.
    await page.getByRole('textbox', { name: /^Filled in/ }).fill('1200');
    await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
    await expect(page.getByTestId('supply')).toContainText('30 L/h');
    await page.getByRole('button', { name: 'Make zones within the tap' }).click();
    await expect(page.getByRole('alert')).toContainText(/Bed \d alone needs \d+ L\/h; the tap gives 30/);
    await page.getByRole('textbox', { name: /^Filled in/ }).fill('180');
    await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
    await expect(page.getByTestId('supply')).toContainText('200 L/h');
    await page.getByRole('button', { name: 'Make zones within the tap' }).click();
    await expect(page.getByTestId('zones')).toContainText('Zone 3');
    // No pressure, no water.
    await page.getByRole('textbox', { name: /^Pressure/ }).fill('0');
    await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
    await expect(page.getByRole('alert')).toContainText(
      'Pressure at the manifold: a number from 0.1 to 80 m.',
    );
  });

  await test.step('which beds lose their light, and when', async () => {
    await yardPart(page, 'Light');
    await expect(page.getByTestId('decision')).toContainText(/Barn takes \d/);
    await expect(page.getByTestId('sun-table').getByRole('row')).toHaveCount(11);
    await page.getByLabel('Hour of the day').focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByTestId('sun')).toContainText(/sun/);
    await page.getByRole('button', { name: /Find free ground/ }).click();
    await expect(page.getByTestId('best-spot')).toContainText(/\d h a day over the season/);
  });

  await test.step('out as GeoJSON and in again: the same yard', async () => {
    await yardPart(page, 'Site plan');
    const before = await kept(empty);
    await page.getByRole('button', { name: 'Files' }).click();
    const [out] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'GeoJSON out' }).click(),
    ]);
    const file = await out.path();
    const plan = page.getByTestId('plan');
    // Everything taken away, by the keys; then read back from the file.
    for (const name of [
      /^Outline/,
      /^Barn/,
      /^Standpipe/,
      /^Bench 1/,
      /^Bench 2/,
      ...Array.from({ length: 8 }, (_, i) => new RegExp(`^Bed ${i + 1},`)),
    ]) {
      await thing(page, name).focus();
      await page.keyboard.press('Delete');
      await expect(thing(page, name)).toHaveCount(0);
    }
    await expect(plan.getByRole('button')).toHaveCount(0);
    await page.getByTestId('geojson-in').setInputFiles({
      name: 'broken.geojson',
      mimeType: 'application/geo+json',
      buffer: Buffer.from(
        '{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"Shed"},"geometry":{"type":"Polygon","coordinates":[[[-2.4,54.6],[-2.39,54.6]]]}}]}',
      ),
    });
    await expect(page.getByRole('alert')).toContainText('Shed');
    await expect(page.getByRole('alert')).toContainText('The plan is unchanged.');
    await page.getByTestId('geojson-in').setInputFiles(file);
    await expect(thing(page, /^Bed 8,/)).toBeVisible();
    await expect(said(page)).not.toContainText('Saving');
    const after = await kept(empty);
    expect(after.places.map((p) => [p.name, p.kind, p.angle_deg, p.design])).toEqual(
      before.places.map((p) => [p.name, p.kind, p.angle_deg, p.design]),
    );
    after.places.forEach((p, i) => {
      expect(Math.abs(p.east_m - before.places[i].east_m)).toBeLessThan(0.001);
      expect(Math.abs(p.north_m - before.places[i].north_m)).toBeLessThan(0.001);
    });
    const drawn = (yard: typeof after) => yard.elements.map(({ id: _, ...rest }: { id: string }) => rest);
    expect(drawn(after)).toEqual(drawn(before));
  });

  await test.step('all of it after a reload', async () => {
    await page.reload();
    await expect(thing(page, /^Bed 8,/)).toBeVisible();
    await expect(thing(page, /^Barn/)).toBeVisible();
    await expect(page.getByTestId('capacity')).toContainText(/8 beds/);
  });
});

test('two tabs move one bed: the later is told, and shown where it stands', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await yardPart(page, 'Site plan');
  const other = await page.context().newPage();
  await hearNothing(other);
  await other.goto(`${own.url}/yard/site`);
  await expect(thing(other, /^Bed 14,/)).toBeVisible();
  await thing(page, /^Bed 14,/).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(said(page)).toContainText('1 thing chosen');
  await expect.poll(async () => (await kept(own)).places.find((p) => p.name === 'Bed 14').north_m).toBe(23.5);
  await thing(other, /^Bed 14,/).focus();
  await other.keyboard.press('Shift+ArrowRight');
  await expect(other.getByText(/Someone changed Bed 14 meanwhile/)).toBeVisible();
  await other.keyboard.press('Shift+ArrowRight');
  await expect
    .poll(async () => {
      const bed = (await kept(own)).places.find((p) => p.name === 'Bed 14');
      return [bed.east_m, bed.north_m];
    })
    .toEqual([7, 23.5]);
});

test('a bed that has held lots stays, and one that lots stand in is not shrunk under them', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example');
  await yardPart(page, 'Site plan');
  await thing(page, /^Bed 1,/).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByText(/Bed 1 has held lots, and their records name it/)).toBeVisible();
  await expect(thing(page, /^Bed 1,/)).toBeVisible();
  await page.getByRole('link', { name: 'Places' }).click();
  await page.getByTestId('places').getByText('Bed 1', { exact: true }).click();
  await page.getByRole('link', { name: 'Edit' }).click();
  await sheet(page)
    .getByRole('textbox', { name: /^Length/ })
    .fill('1500');
  await sheet(page).getByRole('button', { name: 'Save' }).click();
  await expect(sheet(page).getByRole('alert')).toContainText('Lots standing in Bed 1 take 3.10 m²');
});

test('the controller is told its programme, read back, made to fail, and noticed', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await yardPart(page, 'Water');
  await expect(page.getByTestId('water-faults')).toContainText('Bed 9: it asked for water and got none');
  await page.getByText('Try a failure').click();
  await choose(page.getByLabel('Where it fails'), 'Bed 3');
  await choose(page.getByLabel('What fails'), 'Probe dead');
  await page.getByRole('button', { name: 'Fail and read' }).click();
  await expect(page.getByTestId('water-faults')).toContainText('Bed 3: its moisture probe says nothing');
  await choose(page.getByLabel('Where it fails'), 'Everywhere');
  await choose(page.getByLabel('What fails'), 'Nothing: mend it');
  await page.getByRole('button', { name: 'Fail and read' }).click();
  await expect(page.getByTestId('water-faults')).toHaveCount(0);
  await page.getByRole('button', { name: 'Send this week’s programme' }).click();
  await expect(page.getByTestId('controller')).toContainText('Programme sent 24 Nov 2026');
});

test('containers and media: own ones are added, bad ones refused, a heap balances', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example');
  await yardPart(page, 'Containers');
  await expect(page.getByTestId('library').getByRole('row')).toHaveCount(21);
  await choose(page.getByLabel('planted on'), 'Dry ground');
  await expect(page.getByTestId('compare')).toContainText('Long plug reaches moisture on a dry site');
  await page.getByRole('link', { name: 'Add a container' }).click();
  await sheet(page).getByLabel('Name', { exact: true }).fill('Our own tube');
  await sheet(page)
    .getByRole('textbox', { name: /^Depth/ })
    .fill('0');
  await sheet(page).getByRole('button', { name: 'Add the container' }).click();
  await expect(sheet(page).getByRole('alert')).toContainText('Depth: a number from 1 to');
  await sheet(page)
    .getByRole('textbox', { name: /^Depth/ })
    .fill('300');
  await sheet(page).getByRole('button', { name: 'Add the container' }).click();
  await expect(page.getByTestId('library')).toContainText('Our own tube');

  await yardPart(page, 'Media');
  await page.getByRole('textbox', { name: /^How much/ }).fill('9000');
  await choose(page.getByLabel('What happened'), 'Filled into beds or pots');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByRole('alert')).toContainText(/Only 2600 L of Living mix/);
  await page.getByRole('textbox', { name: /^How much/ }).fill('600');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByRole('heading', { name: /On hand: 2.000.L/ })).toBeVisible();
  await page.getByRole('link', { name: 'Add a recipe' }).click();
  await sheet(page).getByLabel('Name', { exact: true }).fill('Grit and leaf');
  await choose(sheet(page).getByLabel('Material 1', { exact: true }), 'leaf mould');
  await sheet(page).getByLabel('Parts of material 1').fill('no');
  await expect(sheet(page)).toContainText('Parts of leaf mould must be above 0.');
  await sheet(page).getByLabel('Parts of material 1').fill('3');
  await sheet(page).getByRole('button', { name: 'Add the recipe' }).click();
  await expect(page.getByTestId('media')).toContainText('Grit and leaf');
  await expect(page.getByTestId('feed-choice')).toContainText(/rating/);
});

test('a visitor looks at the whole yard and is offered nothing to change', async ({ page, demo }) => {
  await signIn(page, demo, 'wren@withybeck.example');
  await yardPart(page, 'Site plan');
  await expect(page.getByLabel('Add to the plan')).toHaveCount(0);
  await thing(page, /^Bed 14,/).focus();
  await page.keyboard.press('Delete');
  await page.keyboard.press('ArrowRight');
  await expect(thing(page, /^Bed 14,/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveCount(0);
  await yardPart(page, 'Water');
  await expect(page.getByRole('button', { name: /Keep|Make zones|Send|Read it/ })).toHaveCount(0);
  await yardPart(page, 'Containers');
  await expect(page.getByRole('link', { name: /Add|Edit/ })).toHaveCount(0);
});
