import { bedGeometry, occupancyOf, occupantOf, traysOnBench, say } from '@kauri/core';
import type { NewStage } from '@kauri/core/contract';
import { computed, type Ref } from 'vue';
import { typedNumber } from '../../parts/typed';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { useSeason } from '../../stores/season';
import { usePlaces } from '../yard/usePlaces';

/** Where a lot is to stand, as it is typed. */
export interface TypedStage {
  placeId: string;
  containerTypeId: string;
  trays: string;
  density: string;
  area: string;
}

/** Room that is free in the place chosen: ground of a bed, m², or trays of the container chosen. */
export interface FreeRoom {
  areaM2: number;
  trays: number;
}
/** What holds where a field is left blank. */
export interface StageStarts {
  densityPerM2: number;
  areaM2: number;
  trays: number;
}

/**
 * The place and cells typed, the room there is, and what they come to.
 * @param moving a lot that is moved: what it empties is free for it
 * @param startsIn what blank fields stand for, by the room there is; without it each is to be typed
 */
export function useStage(
  draft: Ref<TypedStage>,
  moving?: string,
  startsIn?: (free: FreeRoom) => StageStarts,
) {
  const nursery = useNursery();
  const preferences = usePreferences();
  const season = useSeason();
  const { places: all } = usePlaces();
  /** Heel-in bays are for lifted trees: nothing grows there. */
  const places = computed(() => all.value.filter((p) => p.place.place.kind !== 'bay'));
  const place = computed(() => places.value.find((p) => p.place.id === draft.value.placeId) ?? null);
  const container = computed(() => nursery.lookup.containers.get(draft.value.containerTypeId)!);

  /** What else stands in the place chosen. */
  const others = computed(() => {
    const here = place.value;
    if (!here) return null;
    const left = here.lots.filter((lot) => lot.row.id !== moving);
    if (left.length === here.lots.length) return here.occupancy;
    return occupancyOf(
      here.place,
      left.map((lot) => occupantOf(lot, season.view)),
      nursery.lookup,
    );
  });
  const free = computed<FreeRoom>(() => {
    const here = place.value;
    const stands = others.value;
    if (!here || !stands) return { areaM2: 0, trays: 0 };
    if (stands.kind === 'bed') return { areaM2: Math.max(0, stands.freeM2), trays: 0 };
    const bench = here.place.place.design;
    const { trayLengthMm, trayWidthMm } = container.value.values;
    const left = Math.max(0, stands.layout.freeLengthMm);
    const tray = { lengthMm: trayLengthMm, widthMm: trayWidthMm };
    return {
      areaM2: 0,
      trays: left > 0 ? traysOnBench({ lengthMm: left, widthMm: bench.widthMm }, tray).value : 0,
    };
  });
  const starts = computed(() => startsIn?.(free.value) ?? null);
  /** What is typed, or what stands where nothing is. */
  const orStart = (text: string, typed: (value: number) => number, what: keyof StageStarts) =>
    starts.value !== null && text.trim() === '' ? starts.value[what] : typed(typedNumber(text));
  const densityPerM2 = computed(() =>
    orStart(draft.value.density, (n) => preferences.typed(n, 'density'), 'densityPerM2'),
  );
  const areaM2 = computed(() => orStart(draft.value.area, (n) => preferences.typed(n, 'area'), 'areaM2'));
  const trays = computed(() => orStart(draft.value.trays, (n) => n, 'trays'));
  /** Room in the place chosen, in the words of what is to stand there. */
  const room = computed(() => {
    const here = place.value;
    const stands = others.value;
    if (!here || !stands) return null;
    if (stands.kind === 'bed') {
      const { insideAreaM2 } = bedGeometry(
        (here.place.place as { design: Parameters<typeof bedGeometry>[0] }).design,
      ).value;
      const there = free.value.areaM2;
      const wanted = areaM2.value;
      return {
        words: say`${preferences.show(there, 'area')} of ${preferences.show(insideAreaM2, 'area')} free`,
        over:
          wanted > there + 0.005
            ? say`That is ${preferences.show(wanted - there, 'area')} more than is free; it is kept, but check what still stands there.`
            : null,
      };
    }
    const { trays: more } = free.value;
    const wanted = trays.value;
    return {
      words: say`${count(more)} more fit, ${count(more * container.value.values.cellsPerTray)} cells`,
      over:
        wanted > more
          ? say`That is ${count(wanted - more)} more than fit in the room left; it is kept, but check what still stands there.`
          : null,
    };
  });
  const onBench = computed(() => place.value?.occupancy.kind === 'bench');
  /** Cells or trees this stage has room for. */
  const holds = computed(() =>
    onBench.value
      ? trays.value * container.value.values.cellsPerTray
      : Math.floor(densityPerM2.value * areaM2.value + 1e-9),
  );
  const stageOf = (id: string): NewStage =>
    onBench.value
      ? {
          kind: 'container',
          id,
          placeId: draft.value.placeId,
          containerTypeId: draft.value.containerTypeId,
          trays: trays.value,
        }
      : {
          kind: 'bed',
          id,
          placeId: draft.value.placeId,
          densityPerM2: densityPerM2.value,
          areaM2: Math.round(areaM2.value * 1e4) / 1e4,
        };
  return { places, place, container, room, onBench, densityPerM2, holds, starts, stageOf };
}
