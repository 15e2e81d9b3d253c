import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { create } from 'qrcode';
import base from './playwright.config';
import { expect, sheet, signIn, test, type Kauri } from './kauri';

/** What the stand-in camera shows: a picture of codes, as raw video of one frame that is shown over and over. */
const filmed = join(mkdtempSync(join(tmpdir(), 'kauri-camera-')), 'tag.y4m');
const [WIDTH, HEIGHT] = [640, 480];

/** A grey picture of codes side by side, one byte a pixel. */
function picture(texts: readonly string[]): Buffer {
  const luma = Buffer.alloc(WIDTH * HEIGHT, 210);
  texts.forEach((text, at) => {
    const { modules } = create(text, { errorCorrectionLevel: 'M' });
    const dot = Math.floor(240 / (modules.size + 8));
    const [left, top] = [40 + at * 290, 110];
    for (let y = 0; y < (modules.size + 8) * dot; y++)
      for (let x = 0; x < (modules.size + 8) * dot; x++) {
        const [row, column] = [Math.floor(y / dot) - 4, Math.floor(x / dot) - 4];
        const inside = row >= 0 && column >= 0 && row < modules.size && column < modules.size;
        luma[(top + y) * WIDTH + left + x] = inside && modules.get(row, column) ? 20 : 235;
      }
  });
  return luma;
}
function film(texts: readonly string[]): void {
  const colour = Buffer.alloc((WIDTH * HEIGHT) / 2, 128);
  writeFileSync(
    filmed,
    Buffer.concat([
      Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F5:1 Ip A1:1 C420jpeg\nFRAME\n`),
      picture(texts),
      colour,
    ]),
  );
}
const lotId = async (own: Kauri, code: string): Promise<string> =>
  (await own.database.query('select id from lot where code = $1', [code])).rows[0].id;

test.use({
  launchOptions: {
    ...base.use!.launchOptions,
    args: [
      ...base.use!.launchOptions!.args!,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${filmed}`,
    ],
  },
});
test.beforeAll(() => film(['nothing of Kauri’s']));

test('the camera reads a tag, and what is likely to be done there is a tap away', async ({ page, own }) => {
  const id = await lotId(own, '26-TCO-01');
  // Printed at another machine: the tag is the lot's all the same. Another code lies beside it.
  film([`http://old-machine.example:8080/grow/${id}`, 'https://elsewhere.example/4711']);
  await signIn(page, own, 'tam@withybeck.example');
  await page.keyboard.press('q');
  const card = page.getByTestId('tagged').getByRole('article');
  await expect(card.getByRole('heading', { name: '26-TCO-01' })).toBeVisible();
  await expect(card.getByRole('listitem')).toHaveCount(3);
  await card.getByRole('link', { name: 'Measure' }).click();
  await expect(sheet(page).getByRole('heading', { name: 'Measure' })).toBeVisible();
  await expect(sheet(page)).toContainText('26-TCO-01');
  // Going back leads to the tag, and forward does not open the sheet again.
  await page.keyboard.press('Escape');
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Read a tag' })).toBeVisible();
  await page.goForward();
  await expect(page.getByRole('heading', { name: '26-TCO-01', level: 1 })).toBeVisible();
  await expect(sheet(page)).toHaveCount(0);
});

test('a tag of elsewhere, a code that is typed, a photo, and a camera that is refused', async ({
  page,
  own,
  context,
}) => {
  await signIn(page, own, 'tam@withybeck.example', '/scan');
  const tagged = page.getByTestId('tagged');
  const look = async (code: string) => {
    await page.getByLabel('Or type its code').fill(code);
    await page.getByRole('button', { name: 'Look it up' }).click();
  };
  await look('https://kauri.example/grow/019ab3c4-1111-7222-8333-444455556666');
  await expect(tagged.getByRole('alert')).toContainText('This tag is of another nursery');
  await look('26 tco 01');
  await expect(tagged.getByRole('heading', { name: '26-TCO-01' })).toBeVisible();
  // What the camera may be held at meanwhile does not take its place.
  await expect(page.getByRole('button', { name: 'Look through the camera' })).toBeVisible();
  await look('bench 2');
  await tagged.getByRole('button', { name: /26-TCO-01/ }).click();
  await expect(tagged.getByText(/Small-leaved lime; \d+ trees in Bench 2/)).toBeVisible();
  const photo = page.getByLabel('Read a photo of a tag');
  await photo.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(tagged.getByRole('alert')).toHaveText(/notes.png is no picture that can be read/);
  const grey = Buffer.concat([Buffer.from(`P5 ${WIDTH} ${HEIGHT} 255\n`), picture([])]);
  await photo.setInputFiles({ name: 'grey.pgm', mimeType: 'image/x-portable-graymap', buffer: grey });
  await expect(tagged.getByRole('alert')).toHaveText(/grey.pgm is no picture/);
  await photo.setInputFiles({
    name: 'tag.bmp',
    mimeType: 'image/bmp',
    buffer: bitmap(
      picture([
        `${own.url}/yard/${(await own.database.query("select id from place where name = 'Bed 2'")).rows[0].id}`,
      ]),
    ),
  });
  await expect(tagged.getByRole('heading', { name: 'Bed 2' })).toBeVisible();
  await photo.setInputFiles({ name: 'empty.bmp', mimeType: 'image/bmp', buffer: bitmap(picture([])) });
  await expect(tagged.getByRole('alert')).toHaveText(/No code is to be seen in that picture/);

  await context.clearPermissions();
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.reload();
  await expect(page.getByText('The camera was refused.')).toBeVisible();
  await look('26-tco-01');
  await expect(tagged.getByRole('heading', { name: '26-TCO-01' })).toBeVisible();
});

/** A grey picture as a file that every browser reads. */
function bitmap(luma: Buffer): Buffer {
  const [file, palette] = [14, 1024];
  const head = Buffer.alloc(file + 40 + palette);
  head.write('BM');
  head.writeUInt32LE(head.length + luma.length, 2);
  head.writeUInt32LE(head.length, 10);
  head.writeUInt32LE(40, 14);
  head.writeInt32LE(WIDTH, 18);
  // The first row on top.
  head.writeInt32LE(-HEIGHT, 22);
  head.writeUInt16LE(1, 26);
  head.writeUInt16LE(8, 28);
  for (let i = 0; i < 256; i++) head.writeUInt32LE(i * 0x010101, file + 40 + 4 * i);
  return Buffer.concat([head, luma]);
}
