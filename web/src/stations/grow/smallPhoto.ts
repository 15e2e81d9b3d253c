import { Unfit, say } from '@kauri/core';

/** Longest side sent, px. */
const SIDE = 1600;
const QUALITY = 0.85;
/** More points than this are not worth a phone’s memory. */
const MOST_PIXELS = 50e6;

/**
 * A photo drawn anew, upright and small: nothing of its file but the picture is left, and so no position.
 * @throws Unfit with a sentence when the file is no picture, or one too large to open
 */
export async function smallPhoto(file: Blob): Promise<Blob> {
  const bitmap = await openPicture(file);
  try {
    const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = '#ffffff';
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    const small = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
    if (!small) throw new Unfit(say`The browser could not make the photo small. Try another.`);
    return small;
  } finally {
    bitmap.close();
  }
}

/**
 * Opens a file as a picture no longer a side than asked: what is worked on again and again is made small once.
 * @throws Unfit as {@link openPicture}
 */
export async function openSmall(file: Blob, side: number): Promise<ImageBitmap> {
  const whole = await openPicture(file);
  const scale = side / Math.max(whole.width, whole.height);
  if (scale >= 1) return whole;
  try {
    return await createImageBitmap(whole, {
      resizeWidth: Math.round(whole.width * scale),
      resizeHeight: Math.round(whole.height * scale),
      resizeQuality: 'medium',
    });
  } finally {
    whole.close();
  }
}

/** Opens a file as a picture, turned as its camera was held. */
async function openPicture(file: Blob): Promise<ImageBitmap> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null);
  if (!bitmap) throw new Unfit(say`That file is not a picture this browser can open, whatever it is called.`);
  if (bitmap.width * bitmap.height > MOST_PIXELS) {
    const points = Math.round((bitmap.width * bitmap.height) / 1e6);
    bitmap.close();
    throw new Unfit(
      say`That picture has ${points} million points; 50 at most. Take it again at a lower setting.`,
    );
  }
  return bitmap;
}
