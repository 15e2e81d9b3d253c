import { say } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { useLabelAddress } from '../../print/labelAddress';
import { labelSheets, labelStocks, type Label } from '../../print/labels';
import { makePdf, offerFile } from '../../print/pdf';
import { useNursery } from '../../stores/nursery';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import { useGradeWords } from './parcelWords';
import { usePreferences } from '../../stores/preferences';
import { useOrigins } from './useOrigins';
import { USUAL_CRATE } from './usePacking';
import { useParcelWeight } from './useParcelWeight';

/** Trees of a parcel that labels are for, and whom they go to where that is known. */
export interface Labelled {
  parcel: Parcel;
  trees: number;
  whom: string;
}

/** More labels than this at once are taken for a slip. */
const MOST = 2000;

/** Bundle labels: one for each bundle, or one for all where they are loose. */
export function useBundleLabels() {
  const nursery = useNursery();
  const gradeWords = useGradeWords();
  const origins = useOrigins();
  const weigh = useParcelWeight();
  const { show } = usePreferences();
  /** What a bundle weighs, said to be about so much; nothing where nobody knows. */
  function weight(parcel: Parcel, trees: number): string {
    const kg = weigh(parcel, trees, USUAL_CRATE)?.value.kg;
    return kg === undefined ? '' : say`, about ${show(kg, 'mass', kg < 10 ? 1 : 0)}`;
  }
  const address = useLabelAddress();
  const stock = labelStocks.find(({ on }) => on === 'bundle')!;
  async function print(all: readonly Labelled[], name: string): Promise<void> {
    await Promise.all([origins.load(), address.load().catch(() => undefined)]);
    const labels: Label[] = [];
    const copies: number[] = [];
    for (const { parcel, trees, whom } of all) {
      const species = nursery.lookup.species.get(parcel.speciesId);
      const whole = parcel.bundleOf === null ? 0 : Math.floor(trees / parcel.bundleOf);
      const over = parcel.bundleOf === null ? trees : trees % parcel.bundleOf;
      const label = (count: number): Label => ({
        code: parcel.code,
        species: species?.common ?? '',
        latin: species?.latin ?? '',
        provenance: whom || origins.of(parcel),
        sownOn: say`lifted ${dateWords(parcel.since)}`,
        count: `${several(count, 'tree')}, ${gradeWords(parcel)}${weight(parcel, count)}`,
        address: address.at(`/lift/lifted?parcel=${parcel.id}`),
      });
      if (whole > 0) {
        labels.push(label(parcel.bundleOf!));
        copies.push(whole);
      }
      if (over > 0) {
        labels.push(label(over));
        copies.push(1);
      }
    }
    const total = copies.reduce((sum, n) => sum + n, 0);
    if (total > MOST) throw new Error(say`${total} labels at once are too many: print them in parts.`);
    offerFile(name, await makePdf(labelSheets(labels, copies, stock)), 'application/pdf');
  }
  return { print };
}
