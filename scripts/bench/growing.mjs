import { createRequire } from 'node:module';
import { loadSource } from './load.mjs';
import { ms, quantile } from './measure.mjs';

const sharp = createRequire(new URL('../../server/package.json', import.meta.url))('sharp');

/** A picture of a plug of twelve million points, as a phone takes them. */
async function largePhoto() {
  const { renderPlug, strewnRoots } = await loadSource('core/src/roots/photo/rendered.ts');
  const plug = { left: 190, top: 120, right: 560, bottom: 880 };
  const { picture } = renderPlug({
    width: 750,
    height: 1000,
    plug,
    roots: strewnRoots(plug, 60, 0, 40, 3, 6),
    noise: 6,
  });
  return sharp(Buffer.from(picture.rgba.buffer), { raw: { width: 750, height: 1000, channels: 4 } })
    .removeAlpha()
    .resize(3000, 4000)
    .jpeg({ quality: 90 })
    .toBuffer();
}

/** How long a photo takes to be read, and a measure run to be kept, in the browser on the demo. */
export async function benchGrowing(context, url) {
  const page = await context.newPage();
  const photo = { name: 'plug.jpg', mimeType: 'image/jpeg', buffer: await largePhoto() };
  await page.goto(`${url}/roots`);
  await page.getByTestId('root-lots').getByText('26-SOR-03', { exact: true }).click();
  await page.getByRole('heading', { name: '26-SOR-03', level: 1 }).waitFor();
  await page.keyboard.press('r');
  await page.getByRole('button', { name: 'Grades from a photo' }).click();
  const read = [];
  for (let i = 0; i < 4; i++) {
    const input = page.locator('input[type=file]');
    const started = performance.now();
    await input.setInputFiles(photo);
    await page.getByText('Measuring …').waitFor();
    await page.getByTestId('photo-reading').waitFor();
    read.push(performance.now() - started);
  }
  await page.goto(`${url}/grow`);
  await page.getByTestId('lots').getByText('26-TCO-01', { exact: true }).click();
  await page.getByRole('heading', { name: '26-TCO-01', level: 1 }).waitFor();
  const kept = [];
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press('m');
    const input = page.getByLabel(/of plant/);
    await input.fill('24');
    await input.press('Enter');
    const answered = page.waitForResponse((r) => /\/sizes$/.test(r.url()));
    await page.getByRole('button', { name: 'Keep 1 plant' }).click();
    const request = (await answered).request();
    await request.response().then((response) => response.finished());
    kept.push(request.timing().responseEnd);
    await page.getByRole('dialog').waitFor({ state: 'detached' });
  }
  await page.close();
  return [
    ['a photo of 12 million points, chosen to read', ms(quantile(read.slice(1), 0.5)), '', '', '≤ 1500 ms'],
    ['a measure run, from sent to kept', ms(quantile(kept, 0.5)), '', '', '≤ 100 ms'],
  ];
}
