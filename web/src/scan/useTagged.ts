import { say, word } from '@kauri/core';
import type { RuleName } from '@kauri/core';
import { computed, type ComputedRef } from 'vue';
import { useLotAsks } from '../stations/today/useLotAsks';
import { leadsTo } from '../stations/today/useToday';
import { sheetOfRule } from '../stations/grow/lotSheets';
import { kindWords } from '../stations/yard/placeWords';
import { useNursery } from '../stores/nursery';
import { useParcels } from '../stores/parcels';
import { usePlantings } from '../stores/plantings';
import { useSeed } from '../stores/seed';
import { useSession } from '../stores/session';
import { dateWords } from '../words/dates';
import { several } from '../words/numbers';
import { lotActs, lotSheetAt, type LikelyAct } from './likelyActs';
import type { Known, Tagged } from './readTag';

/** What a tag stands on, as it is shown: what it is, what is there, and what one is likely to do. */
export interface TaggedShown {
  title: string;
  what: string;
  page: LikelyAct['to'];
  acts: LikelyAct[];
  /** Lots that stand there, each to go on to. */
  lots: { id: string; words: string }[];
}

/** What this nursery has that tags stand on. */
export function useTagged() {
  const nursery = useNursery();
  const seed = useSeed();
  const parcels = useParcels();
  const plantings = usePlantings();
  const session = useSession();
  const { linesOf } = useLotAsks();
  const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';

  /** Fetches what is not here yet; what cannot be had is left out, and its tags are not known then. */
  const load = () =>
    Promise.allSettled([
      seed.load(),
      parcels.loaded ? null : parcels.load(),
      plantings.loaded ? null : plantings.load(),
    ]);

  const known: ComputedRef<Known> = computed(() => ({
    lot: new Map([...nursery.index.values()].map(({ id, code }) => [id, code])),
    place: new Map(nursery.catalogue!.places.map(({ id, place }) => [id, place.name])),
    bag: new Map(seed.room.lots.map(({ id, code }) => [id, code])),
    batch: new Map(seed.room.treatments.map(({ id, name }) => [id, name])),
    parcel: new Map(parcels.all.map(({ id }) => [id, ''])),
    planting: new Map(plantings.kept.plantings.map(({ id, name }) => [id, name])),
  }));

  function lot(id: string): TaggedShown {
    const named = nursery.index.get(id)!;
    const page = { name: 'grow', params: { lot: id } };
    const row = nursery.lots.get(id);
    const asked = linesOf(id).map(({ item }): LikelyAct => {
      const opens = sheetOfRule[item.rule as RuleName];
      return {
        words: item.words.title,
        to: opens ? lotSheetAt(id, opens.sheet, opens.work) : leadsTo(item),
      };
    });
    const { sown, standing } = row?.held ?? { sown: 0, standing: 0 };
    const home = row && nursery.lookup.places.get(row.stage.placeId)?.place.name;
    const there =
      standing > 0
        ? say`${several(standing, 'tree')} in ${home ?? ''}`
        : sown > 0
          ? say`${several(sown, 'seed')} in ${home ?? ''}`
          : named.closedOn === null
            ? say`nothing of it stands`
            : say`nothing of it is left here since ${dateWords(named.closedOn)}`;
    const hand = { id, sown, standing, inBed: row?.stage.containerTypeId === null };
    return {
      title: named.code,
      what: `${species(named.speciesId)}; ${there}`,
      page,
      acts: session.may('crew') ? lotActs(hand, asked) : [],
      lots: [],
    };
  }

  function place(id: string): TaggedShown {
    const { place: here } = nursery.catalogue!.places.find((one) => one.id === id)!;
    const lots = [...nursery.lots.values()]
      .filter(({ stage, held }) => stage.placeId === id && held.sown + held.standing > 0)
      .map((row) => ({ id: row.id, words: `${row.code} ${species(row.speciesId)}` }));
    return {
      title: here.name,
      what: `${kindWords[here.kind]}; ${lots.length ? say`${several(lots.length, 'lot')} there` : say`no lot there`}`,
      page: { name: 'yard', params: { place: id } },
      acts:
        session.may('grower') && here.kind !== 'bay'
          ? [{ words: say`Sow here`, to: { name: 'grow', query: { new: '1', in: id } } }]
          : [],
      lots,
    };
  }

  function bag(id: string): TaggedShown {
    const { code, speciesId } = seed.lotById.get(id)!;
    return {
      title: code,
      what: say`seed of ${species(speciesId)}; ${several(Math.round(seed.held.get(id)?.seeds ?? 0), 'seed')} in store`,
      page: { name: 'seed', params: { seedLot: id } },
      acts: [{ words: say`Dormancy`, to: { name: 'seed-clock' } }],
      lots: [],
    };
  }

  function batch(id: string): TaggedShown {
    const { name, state, startedOn } = seed.treatmentById.get(id)!;
    return {
      title: name,
      what: say`batch under treatment since ${dateWords(startedOn)}; ${word(state)}`,
      page: { name: 'seed-clock', params: { batch: id } },
      acts: [],
      lots: [],
    };
  }

  function parcel(id: string): TaggedShown {
    const { code, speciesId, held, lotId, since, place: where } = parcels.all.find((one) => one.id === id)!;
    return {
      title: code,
      what: say`${several(held, 'tree')} of ${species(speciesId)}, lifted ${dateWords(since)}${where ? `; ${where}` : ''}`,
      page: { name: 'lift-lying', query: { parcel: id } },
      acts: [{ words: say`What is to be loaded`, to: { name: 'lift-load' } }],
      lots: [{ id: lotId, words: say`from ${nursery.index.get(lotId)?.code ?? say`its lot`}` }],
    };
  }

  function planting(id: string): TaggedShown {
    const { name } = plantings.kept.plantings.find((one) => one.id === id)!;
    return {
      title: name,
      what: say`planting`,
      page: { name: 'planted', params: { planting: id } },
      acts: [],
      lots: [],
    };
  }

  const of = { lot, place, bag, batch, parcel, planting };
  return {
    load,
    known,
    shown: ({ kind, id }: Tagged): TaggedShown => of[kind](id),
  };
}
