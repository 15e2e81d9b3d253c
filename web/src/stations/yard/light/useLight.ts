import {
  dayOf,
  middleOfPlace,
  partsOf,
  type LightLoss,
  type SpotLight,
  type DirectSun,
  type Worked,
} from '@kauri/core';
import { wrapSpeaking } from '../../../workers/speaking';
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useYard } from '../../../stores/yard';
import type { LightWorker } from '../../../workers/light.worker';
import type { ShownPlace } from '../usePlaces';
import { cornersOf } from '@kauri/core';
import type { Ref } from 'vue';

/** Leaves stand a hand above the rim in most of the season; where nothing is measured. */
const CANOPY_ABOVE_M = 0.15;
const BENCH_HEIGHT_M = 0.8;

/** Height of the leaves of a place above the ground, m. */
function canopyHeightM({ place }: ShownPlace['place']): number {
  if (place.kind === 'bench') return BENCH_HEIGHT_M + CANOPY_ABOVE_M;
  if (place.kind !== 'bed') return CANOPY_ABOVE_M;
  return place.design.airGapMm / 1000 + 0.3 + CANOPY_ABOVE_M;
}

/** Light of the yard, worked out in a worker whenever plan or places change. */
export function useLight(places: Ref<readonly ShownPlace[]>, chosenId: Ref<string | null>) {
  const nursery = useNursery();
  const yard = useYard();
  const season = useSeason();
  const raw = new Worker(new URL('../../../workers/light.worker.ts', import.meta.url), { type: 'module' });
  const worker = wrapSpeaking<LightWorker>(raw);
  onBeforeUnmount(() => raw.terminate());

  const light = shallowRef<Map<string, SpotLight>>(new Map());
  const chosen = shallowRef<{ losses: LightLoss[]; today: Worked<DirectSun> } | null>(null);
  const best = shallowRef<{ middle: readonly [number, number]; hours: number }[] | null>(null);
  const looking = ref(false);
  const site = () => {
    const { latitudeDeg, longitudeDeg } = nursery.catalogue!.nursery;
    return { latitudeDeg, longitudeDeg };
  };
  const year = () => partsOf(dayOf(nursery.catalogue!.nursery.today)).year;
  const spotOf = (shown: ShownPlace) => ({
    id: shown.place.id,
    point: middleOfPlace(shown.place.place),
    canopyHeightM: canopyHeightM(shown.place),
  });
  const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

  const ground = () =>
    JSON.stringify([
      yard.site === null,
      places.value.map((p) => [p.place.id, p.place.version, spotOf(p)]),
      yard.elements,
    ]);
  watch(
    ground,
    async () => {
      best.value = null;
      // Until the plan is there nothing is known to shade anything.
      if (yard.site === null) return;
      const rows = await worker.yard(
        plain(places.value.map(spotOf)),
        plain([...yard.elements]),
        site(),
        year(),
      );
      light.value = new Map(rows.map((row) => [row.id, row]));
    },
    { immediate: true },
  );
  watch(
    [chosenId, () => season.view, ground],
    async () => {
      const shown = places.value.find((p) => p.place.id === chosenId.value);
      chosen.value =
        shown && yard.site
          ? await worker.place(plain(spotOf(shown)), plain([...yard.elements]), site(), year(), season.view)
          : null;
    },
    { immediate: true },
  );
  async function findBest(lengthM: number, widthM: number) {
    looking.value = true;
    const grounds = places.value.map((p) => ({
      id: p.place.id,
      name: p.place.place.name,
      corners: cornersOf(p.place.place),
    }));
    best.value = await worker.best(plain([...yard.elements]), plain(grounds), site(), year(), {
      lengthM,
      widthM,
      canopyHeightM: 0.5,
    });
    looking.value = false;
  }
  return { light, chosen, best, looking, findBest };
}
