import { say, inWords } from '@kauri/core';
import { computed } from 'vue';
import { useMass } from '../../../parts/useMass';
import type { Label } from '../../../print/labels';
import { useLabelAddress } from '../../../print/labelAddress';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { dateWords } from '../../../words/dates';
import { count } from '../../../words/numbers';
import { begunWords } from '../../../words/seed';
import { kindWords } from '../../yard/placeWords';

/** What labels are printed for. */
export const labelKinds = ['lots', 'places', 'bags'] as const;
export type LabelKind = (typeof labelKinds)[number];
export const labelKindWords: Readonly<Record<LabelKind, string>> = inWords({
  lots: 'Lots',
  places: 'Beds, benches and bays',
  bags: 'Bags of seed',
});

/** One thing that labels can be printed for. */
export interface Labelled {
  id: string;
  label: Label;
  /** Where it stands or lies. */
  where: string;
  /** Why its label would lead nowhere. */
  lost: string | null;
}

/** Everything of the nursery that bears a label, the newest lots first. */
export function useLabelled() {
  const nursery = useNursery();
  const seed = useSeed();
  const mass = useMass();
  const { at } = useLabelAddress();

  const lots = computed<Labelled[]>(() =>
    [...nursery.lots.values()]
      .filter((lot) => lot.held.sown + lot.held.standing > 0)
      .sort((a, b) => b.sownOn.localeCompare(a.sownOn) || a.code.localeCompare(b.code))
      .map((lot) => {
        const species = seed.speciesOf(lot.speciesId);
        const where = nursery.lookup.places.get(lot.stage.placeId)?.place.name ?? '';
        return {
          id: lot.id,
          label: {
            code: lot.code,
            species: species.common,
            latin: species.latin,
            provenance:
              lot.seedLotId === null ? '' : (seed.lotById.get(lot.seedLotId)?.provenance.place ?? ''),
            sownOn: `${begunWords[lot.origin]} ${dateWords(lot.sownOn)}`,
            count: lot.held.standing
              ? say`${count(lot.held.standing)} trees`
              : say`${count(lot.held.sown)} seeds`,
            address: at(`/grow/${lot.id}`),
          },
          where,
          lost:
            where === ''
              ? say`${lot.code} has no place: give it one first, or the label leads nowhere.`
              : null,
        };
      }),
  );
  const places = computed<Labelled[]>(() =>
    nursery.catalogue!.places.map(({ id, place }) => ({
      id,
      label: {
        code: place.name,
        species: kindWords[place.kind],
        latin: '',
        provenance: nursery.catalogue!.nursery.name,
        sownOn: '',
        count: '',
        address: at(`/yard/${id}`),
      },
      where: '',
      lost: null,
    })),
  );
  const bags = computed<Labelled[]>(() =>
    seed.known.lots
      .filter((bag) => (seed.held.get(bag.id)?.seeds ?? 0) >= 1)
      .map((bag) => {
        const species = seed.speciesOf(bag.speciesId);
        return {
          id: bag.id,
          label: {
            code: bag.code,
            species: species.common,
            latin: species.latin,
            provenance: bag.provenance.place,
            sownOn: bag.collectedOn
              ? say`collected ${dateWords(bag.collectedOn)}`
              : say`received ${dateWords(bag.receivedOn)}`,
            count: mass(seed.held.get(bag.id)!.grams),
            address: at(`/seed/${bag.id}`),
          },
          where: '',
          lost: null,
        };
      }),
  );
  const all = { lots, places, bags };
  return (kind: LabelKind): readonly Labelled[] => all[kind].value;
}
