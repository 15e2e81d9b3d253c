import { measurePhoto, UnfitPicture, type PhotoOf, type PhotoReading, type Step } from '@kauri/core';
import { exposeSpeaking } from './speaking';

/** Longest side a picture is measured at, points: a root of half a millimetre is still two wide on a whole plug. */
const SIDE = 800;

export type PhotoMeasured =
  | { fit: true; width: number; height: number; value: PhotoReading; working: Step[] }
  | { fit: false; why: string };

const api = {
  /**
   * Measures a picture, made smaller first.
   * @param mmPerPoint of the picture as it is given; null without a scale
   */
  measure(bitmap: ImageBitmap, of: PhotoOf, mmPerPoint: number | null): PhotoMeasured {
    const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
    const width = Math.max(1, Math.round(bitmap.width * scale));
    const height = Math.max(1, Math.round(bitmap.height * scale));
    const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    pen.imageSmoothingQuality = 'medium';
    pen.drawImage(bitmap, 0, 0, width, height);
    bitmap.close();
    try {
      const rgba = pen.getImageData(0, 0, width, height).data;
      const scaled = mmPerPoint === null ? null : mmPerPoint / scale;
      return { fit: true, width, height, ...measurePhoto({ width, height, rgba }, of, scaled) };
    } catch (error) {
      if (error instanceof UnfitPicture) return { fit: false, why: error.message };
      throw error;
    }
  },
};

export type PhotoWorker = typeof api;
exposeSpeaking(api);
