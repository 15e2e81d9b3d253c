import { heightOfGrade, packingOf, type Crate, type Packed, type Step } from '@kauri/core';
import type { Evidence, Parcel } from '@kauri/core/contract';
import { useNursery } from '../../stores/nursery';

/** The last mean of a size that was measured of a lot; null where none was. */
const lastMean = (sizes: Evidence['sizes'], what: 'height' | 'diameter'): number | null =>
  sizes
    .filter((size) => size.what === what)
    .sort((a, b) => a.on.localeCompare(b.on))
    .at(-1)?.mean ?? null;

/** What trees of a parcel weigh and how they travel, by their grade's height and their lot's measures. */
export function useParcelWeight() {
  const nursery = useNursery();
  function cellsOf({ lotId, form }: Parcel) {
    const stage = nursery.lots.get(lotId)?.stage;
    const container = nursery.lookup.containers.get(stage?.containerTypeId ?? '')?.values;
    if (form === 'bare-root' || !stage || !container) return null;
    const filled = nursery.lookup.places.get(stage.placeId)?.place.mediumId ?? '';
    const medium = nursery.lookup.media.get(filled) ?? nursery.catalogue!.media[0];
    return {
      cellMl: container.statedMl ?? 0,
      perTray: container.cellsPerTray,
      wetKgPerM3: medium.values.wetKgPerM3,
    };
  }
  /** @returns null where nobody knows how tall they are */
  return (
    parcel: Parcel,
    trees: number,
    crate: Crate,
  ): { value: Packed; working: Step[]; inTrays: boolean } | null => {
    const sizes = nursery.evidence.get(parcel.lotId)?.sizes ?? [];
    const [height, diameter] = [lastMean(sizes, 'height'), lastMean(sizes, 'diameter')];
    const heightCm = heightOfGrade(parcel) ?? height;
    if (heightCm === null || !(trees > 0)) return null;
    const collarMm = height !== null && diameter !== null ? (heightCm * diameter) / height : null;
    const cells = cellsOf(parcel);
    const packed = packingOf({ trees, heightCm, collarMm, bundleOf: parcel.bundleOf, cells }, crate);
    return { ...packed, inTrays: cells !== null };
  };
}
