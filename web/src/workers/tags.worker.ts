import { expose } from 'comlink';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import readerWasm from 'zxing-wasm/reader/zxing_reader.wasm?url';

prepareZXingModule({ overrides: { locateFile: () => readerWasm } });

/** Longest side of a picture as it is read, px: a code on a tag is read as well, and ten times faster, than at a camera’s full size. */
const MOST_PX = 1600;
const MOST_CODES = 12;

const api = {
  /**
   * The codes in a picture, each once, as text.
   * @param picture is let go of
   */
  async read(picture: ImageBitmap): Promise<string[]> {
    const scale = Math.min(1, MOST_PX / Math.max(picture.width, picture.height));
    const [width, height] = [picture.width, picture.height].map((px) => Math.max(1, Math.round(px * scale)));
    const canvas = new OffscreenCanvas(width, height);
    const paint = canvas.getContext('2d', { willReadFrequently: true })!;
    paint.drawImage(picture, 0, 0, width, height);
    picture.close();
    const found = await readBarcodes(paint.getImageData(0, 0, width, height), {
      formats: ['QRCode'],
      tryHarder: true,
      maxNumberOfSymbols: MOST_CODES,
    });
    return [...new Set(found.filter(({ isValid }) => isValid).map(({ text }) => text))];
  },
};

export type TagsWorker = typeof api;
expose(api);
