import { renderPlug, strewnRoots } from '../core/src/roots/photo/rendered';
import sharp from 'sharp';
import { act, choose, expect, fill, openLot, sheet, signIn, station, test, yardPart } from './kauri';

/** A picture of a plug as a phone gives it: a JPEG with where it was taken, lying on its side. */
async function plugPhoto(): Promise<{ name: string; mimeType: string; buffer: Buffer }> {
  const plug = { left: 170, top: 120, right: 430, bottom: 680 };
  const { picture } = renderPlug({ plug, roots: strewnRoots(plug, 40, 0, 30, 3), noise: 6 });
  const raw = { width: picture.width, height: picture.height, channels: 4 as const };
  const buffer = await sharp(Buffer.from(picture.rgba.buffer as ArrayBuffer), { raw })
    .removeAlpha()
    .rotate(-90)
    .jpeg()
    .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '54/1 36/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  return { name: 'plug.jpg', mimeType: 'image/jpeg', buffer };
}

test('a break-in over a whole bed is counted once, shared, pictured and taken back', async ({
  page,
  own,
  expected,
}) => {
  expected.faults.push(/422/);
  await signIn(page, own, 'tam@withybeck.example');
  await openLot(page, '26-BPE-01');
  await page.keyboard.press('e');
  await sheet(page)
    .getByText(/All of Bed 2/)
    .click();
  await fill(page, { 'Trees hit': '40', 'Of these dead': '50' });
  await act(page, 'Write it down');
  await expect(sheet(page).getByRole('alert')).toContainText('No more can have died than were hit');
  await test.step('what was typed is still there, also after a reload', async () => {
    await page.reload();
    await openLot(page, '26-BPE-01');
    await page.keyboard.press('e');
    await expect(sheet(page).getByLabel(/Trees hit/)).toHaveValue('40');
  });
  await fill(page, { 'Of these dead': '6', 'Where, if not all over': 'edge rows' });
  await expect(sheet(page).getByTestId('shares')).toContainText('26-ALN-01');
  await test.step('a file that is no picture is refused, whatever it is called', async () => {
    const text = { name: 'roots.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') };
    await sheet(page).locator('input[type=file]').setInputFiles(text);
    await expect(sheet(page).getByRole('alert')).toContainText('not a picture this browser can open');
  });
  await sheet(page)
    .locator('input[type=file]')
    .setInputFiles(await plugPhoto());
  await expect(sheet(page).getByRole('img', { name: 'Photo 1' })).toBeVisible();
  await act(page, 'Write it down');
  const line = page
    .getByTestId('records')
    .getByRole('row', { name: /browsed: .* edge rows/ })
    .first();
  await expect(line).toBeVisible();
  const kept = line.getByRole('img', { name: /Photo 1 of event/ });
  await expect(kept).toBeVisible();
  // Upright, whichever way the camera was held.
  expect(await kept.evaluate((img: HTMLImageElement) => img.naturalHeight > img.naturalWidth)).toBe(true);
  await openLot(page, '26-ALN-01');
  await expect(page.getByTestId('records')).toContainText('edge rows');
  await test.step('undo takes every lot’s part back', async () => {
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await expect(page.getByTestId('records')).not.toContainText('edge rows');
    await openLot(page, '26-BPE-01');
    await expect(page.getByTestId('records')).not.toContainText('edge rows');
  });
});

test('work done is written down by keys alone, and says what to mind', async ({ page, own }) => {
  await signIn(page, own, 'tam@withybeck.example');
  await openLot(page, '26-SOR-03');
  await page.keyboard.press('w');
  await sheet(page).getByText('Stake', { exact: true }).click();
  await expect(sheet(page).getByTestId('care-says')).toContainText('flexible stake moves with the stem');
  await sheet(page).getByText('Feed', { exact: true }).click();
  const months = sheet(page).getByLabel(/Rated life/);
  await months.fill('8');
  await months.press('Enter');
  await expect(page.getByTestId('records')).toContainText('prills for 8 months at 21 °C');
  await expect(page.getByTestId('odds').getByRole('row', { name: /Feed runs out/ })).toBeVisible();
});

test('an act of Today is done, put off, given away, muted, printed and followed in a calendar', async ({
  page,
  own,
  expected,
}) => {
  expected.faults.push(/422|404/);
  await signIn(page, own, 'isla@withybeck.example', '/');
  const line = page.getByTestId('lot-act').filter({ hasText: 'Move 26-ALN-07 on' });
  await expect(line.getByTestId('work')).toContainText('about');
  await test.step('skipping asks why', async () => {
    await line.getByRole('button', { name: /^Skip/ }).click();
    await act(page, 'Skip it');
    await expect(sheet(page)).toContainText('Say why it is skipped');
    await fill(page, { Why: 'No pots left' });
    await act(page, 'Skip it');
    await expect(line).toHaveCount(0);
    await page.getByRole('button', { name: /done or skipped/ }).click();
    await expect(page.getByTestId('hidden-acts')).toContainText('No pots left');
    await page.getByTestId('hidden-acts').getByRole('button', { name: 'Take back' }).click();
    await expect(line).toBeVisible();
  });
  await test.step('given to somebody, it carries the name, in another tab too', async () => {
    await line.getByRole('button', { name: /^Skip/ }).click();
    await sheet(page).getByText('Give to someone', { exact: true }).click();
    await choose(sheet(page).getByLabel('Whose it is'), 'Tam, crew');
    await act(page, 'Give it');
    await expect(line.getByTestId('work')).toContainText('Tam');
    const other = await page.context().newPage();
    await other.goto(`${own.url}/today`);
    const there = other.getByTestId('lot-act').filter({ hasText: 'Move 26-ALN-07 on' });
    await expect(there.getByTestId('work')).toContainText('Tam');
    await other.close();
  });
  await test.step('on paper', async () => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'On paper' }).click(),
    ]);
    expect(file.suggestedFilename()).toBe('to-do.pdf');
  });
  await test.step('in a calendar, until its address is ended', async () => {
    await page.getByRole('button', { name: 'Calendar', exact: true }).click();
    await act(page, 'Make an address');
    const address = await sheet(page).getByLabel('Your address').inputValue();
    const feed = await fetch(address);
    const text = (await feed.text()).replace(/\r\n /g, '');
    expect(text).toContain('SUMMARY:Move 26-ALN-07 on');
    await act(page, 'End it');
    await expect(sheet(page)).toContainText('You have no address yet');
    expect((await fetch(address)).status).toBe(404);
    await page.keyboard.press('Escape');
  });
  await test.step('done with the time it took, which teaches the rate', async () => {
    await line.getByRole('button', { name: /^Done/ }).click();
    await sheet(page)
      .getByLabel(/Time it took/)
      .fill('600');
    await act(page, 'Done');
    await expect(line).toHaveCount(0);
    await page.getByRole('button', { name: 'Rules' }).click();
    await expect(sheet(page).getByRole('row', { name: /Root-bound lots/ })).toContainText(
      'from 1 time written down',
    );
    await sheet(page).getByLabel('Mute: Beds to lift').check();
    await act(page, 'Keep the rules');
    await expect(page.getByTestId('lot-act').filter({ hasText: /^Lift / })).toHaveCount(0);
    await expect(page.locator('main')).toContainText('muted');
  });
});

test('a station is read, fails, and is found out; a cover is fitted from its logger', async ({
  page,
  own,
  expected,
}) => {
  expected.faults.push(/422/);
  await signIn(page, own, 'isla@withybeck.example');
  await yardPart(page, 'Weather');
  const stations = page.getByTestId('stations');
  await expect(stations).toContainText('On the barn');
  await page.getByRole('button', { name: 'Add a station' }).click();
  await page.getByLabel('Its name').fill('Spare mast');
  await page.getByRole('button', { name: 'Add it' }).click();
  await page.getByText('Try a failure').click();
  await choose(page.getByLabel('Which station fails'), 'Spare mast');
  await choose(page.getByLabel('How it fails'), 'Falls silent');
  await page.getByRole('button', { name: 'Make it so' }).click();
  await page.getByRole('button', { name: 'Read them now' }).click();
  await expect(stations.getByRole('listitem').filter({ hasText: 'Spare mast' })).toContainText(
    'Silent for 11 days',
  );
  await page.getByRole('button', { name: /Fit from Logger in the polytunnel/ }).click();
  await expect(page.getByTestId('covers')).toContainText('Fitted from');
  await page.getByText('What stands under them').click();
  await choose(page.getByLabel('Cover over Bench 1'), 'Polytunnel');
  await openLot(page, '26-SOR-03');
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await station(page, 'Yard');
  await yardPart(page, 'Weather');
  await page.getByText('What stands under them').click();
  await expect(page.getByLabel('Cover over Bench 1')).toHaveAttribute('data-value', '');
});

test('values the lots taught are taken, and taken back', async ({ page, own }) => {
  await signIn(page, own, 'isla@withybeck.example', '/learnt');
  const lesson = page
    .getByTestId('lessons')
    .getByRole('listitem')
    .filter({ hasText: /Rowan.*in beds/ });
  await expect(lesson).toContainText(/From \d+ lots/);
  await lesson.getByRole('button', { name: 'Take it' }).click();
  await expect(lesson).toContainText('✓ Taken');
  await page.reload();
  await expect(lesson).toContainText('✓ Taken');
  await lesson.getByRole('button', { name: 'Take back' }).click();
  await expect(lesson).not.toContainText('Taken');
});

test('a photo suggests grades at the bench; an unfit one says why', async ({ page, own }) => {
  await signIn(page, own, 'tam@withybeck.example');
  await station(page, 'Roots');
  await page.getByTestId('root-lots').getByText('26-SOR-03', { exact: true }).click();
  await page.keyboard.press('r');
  await page.getByRole('button', { name: 'Grades from a photo' }).click();
  const meter = page.getByRole('dialog').filter({ hasText: 'Measure a photo' });
  const blank = await sharp({ create: { width: 500, height: 500, channels: 3, background: '#ffffff' } })
    .jpeg()
    .toBuffer();
  await meter
    .locator('input[type=file]')
    .setInputFiles({ name: 'blank.jpg', mimeType: 'image/jpeg', buffer: blank });
  await expect(meter.getByTestId('unfit')).toContainText('washed out');
  await meter.locator('input[type=file]').setInputFiles(await plugPhoto());
  await expect(meter.getByTestId('photo-reading')).toContainText('Roots cover');
  await meter.getByRole('button', { name: 'Use these grades' }).click();
  await expect(meter).toHaveCount(0);
  await expect(
    sheet(page).getByRole('group', { name: 'Fibre, middle third' }).getByLabel('good'),
  ).toBeChecked();
});

test('a caliper streams its readings in, and stops', async ({ page, own }) => {
  await signIn(page, own, 'tam@withybeck.example');
  await openLot(page, '26-TCO-01');
  await page.keyboard.press('m');
  await sheet(page).getByText('Collars', { exact: true }).click();
  await sheet(page).getByRole('button', { name: 'Listen to the caliper' }).click();
  await expect(sheet(page).getByText('Collar of plant 4')).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Listening: stop' }).click();
  await expect(sheet(page).getByRole('button', { name: 'Listen to the caliper' })).toBeVisible();
  await sheet(page)
    .getByRole('button', { name: /^Keep \d+ plants/ })
    .click();
  await expect(page.getByTestId('records')).toContainText('collar');
});

test.describe('with a refusal in it', () => {
  test.use({ expected: { faults: [/422/] } });

  test('a lot’s week by keyboard alone: counted, measured, pulled, worked on, lifted, and taken back', async ({
    page,
    own,
  }) => {
    await signIn(page, own, 'isla@withybeck.example', '/grow');
    await openLot(page, '26-SOR-03');
    const records = page.getByTestId('records');
    const ends = async (words: string | RegExp) => {
      await expect(sheet(page)).toHaveCount(0);
      await expect(page.getByRole('status').getByText(words).last()).toBeVisible();
    };
    await page.keyboard.press('c');
    await expect(sheet(page).getByLabel('Seedlings standing now')).toBeFocused();
    // Refused, the keys lead to what is wrong.
    await page.keyboard.type('-5');
    await sheet(page).getByLabel('Note').focus();
    await page.keyboard.press('Enter');
    await expect(sheet(page).getByRole('alert').first()).toBeVisible();
    await expect(sheet(page).getByLabel('Seedlings standing now')).toBeFocused();
    await sheet(page).getByLabel('Seedlings standing now').fill('240');
    await page.keyboard.press('Enter');
    await ends('26-SOR-03');
    await page.keyboard.press('m');
    await expect(sheet(page).getByLabel(/Height of plant 1/)).toBeFocused();
    for (const value of ['61', '63', '65']) {
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    await page.keyboard.press('Control+Enter');
    await ends('3 plants of 26-SOR-03 measured');
    await page.keyboard.press('r');
    await expect(sheet(page).getByText('No plug scored yet.')).toBeVisible();
    for (const key of ['2', '2', '3', 'Enter']) await page.keyboard.press(key);
    await ends('3 plugs of 26-SOR-03 scored');
    await page.keyboard.press('w');
    await expect(sheet(page).getByRole('heading', { level: 2 })).toBeVisible();
    await page.keyboard.press('Control+Enter');
    await expect(sheet(page)).toHaveCount(0);
    await page.keyboard.press('l');
    await expect(sheet(page).getByLabel('Lifted, good')).toBeFocused();
    await page.keyboard.type('20');
    await page.keyboard.press('Enter');
    await ends('20 trees of 26-SOR-03 lifted');
    await expect(records).toContainText('lifted');
    await page.keyboard.press('u');
    await expect(page.getByText(/Taken back: 20 trees/)).toBeVisible();
  });
});

test('a lot is sown by keyboard in twelve Tabs and less: as its kind stands here, on the ground it needs', async ({
  page,
  own,
}) => {
  await signIn(page, own, 'isla@withybeck.example', '/grow');
  // Letters of one name are typed within a second: the page is to have the machine to itself by then.
  await expect(page.getByTestId('ground-line')).toBeVisible();
  await page.keyboard.press('n');
  const species = sheet(page).getByLabel('Species');
  await expect(species).toBeFocused();
  await page.keyboard.type('Common ald');
  await expect(species).toHaveText('Common alder, Alnus glutinosa');
  const seeds = sheet(page).getByLabel('Seeds sown');
  const isThere = () => seeds.evaluate((field) => field === document.activeElement);
  let tabs = 0;
  while (!(await isThere()) && tabs < 12) {
    await page.keyboard.press('Tab');
    tabs++;
  }
  await expect(seeds).toBeFocused();
  await page.keyboard.type('60');
  await expect(sheet(page).getByText(/Blank: 200\/m²/)).toBeVisible();
  await expect(sheet(page).getByText(/Blank: 0\.\d+\sm², room for \d+ trees/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '26-ALN-02', level: 1 })).toBeVisible();
  await expect(page.getByText(/200\/m², Bed 1/).first()).toBeVisible();
});
