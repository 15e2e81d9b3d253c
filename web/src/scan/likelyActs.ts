import { say } from '@kauri/core';
import type { CareKind } from '@kauri/core';
import type { RouteLocationRaw } from 'vue-router';
import type { LotSheet } from '../stations/grow/lotSheets';

/** What one is likely to do where a tag was read, and where that is done. */
export interface LikelyAct {
  words: string;
  to: RouteLocationRaw;
}

/** As many as a thumb finds without looking twice. */
const LIKELY = 3;

/** A lot’s page with one of its sheets open. */
export const lotSheetAt = (lot: string, sheet: LotSheet, work?: CareKind): RouteLocationRaw => ({
  name: 'grow',
  params: { lot },
  query: { do: sheet, ...(work && { work }) },
});

/** What of a lot is there, as far as it decides what can be done with it. */
export interface LotAtHand {
  id: string;
  sown: number;
  standing: number;
  inBed: boolean;
}

/**
 * The acts that come first at a lot: what Today asks for, in its order, then what is done most often of such a lot.
 * @param asked of the lot by Today
 */
export function lotActs(lot: LotAtHand, asked: readonly LikelyAct[]): LikelyAct[] {
  const usual: [LotSheet, string][] =
    lot.standing > 0
      ? [
          ['count', say`Count`],
          ['measure', say`Measure`],
          ...(lot.inBed ? [] : [['pull', say`Pull plugs`] as [LotSheet, string]]),
          ['care', say`Work done`],
          ['event', say`What happened`],
        ]
      : lot.sown > 0
        ? [
            ['count', say`Count what is up`],
            ['care', say`Work done`],
            ['write-off', say`Write off`],
          ]
        : [];
  const opened = new Set(
    asked.map(({ to }) => JSON.stringify((to as { query?: { do?: string } }).query?.do ?? to)),
  );
  const rest = usual
    .filter(([sheet]) => !opened.has(JSON.stringify(sheet)))
    .map(([sheet, words]) => ({ words, to: lotSheetAt(lot.id, sheet) }));
  return [...asked, ...rest].slice(0, LIKELY);
}
