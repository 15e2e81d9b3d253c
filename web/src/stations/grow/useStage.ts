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

/**
 * The place and cells typed, the room there is, and what they come to.
 * @param moving a lot that is moved: what it empties is free for it
 */
export function useStage(draft: Ref<TypedStage>, moving?: string) {
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
  /** Room in the place chosen, in the words of what is to stand there. */
  const room = computed(() => {
    const here = place.value;
    const stands = others.value;
    if (!here || !stands) return null;
    if (stands.kind === 'bed') {
      const { insideAreaM2 } = bedGeometry(
        (here.place.place as { design: Parameters<typeof bedGeometry>[0] }).design,
      ).value;
      const free = Math.max(0, stands.freeM2);
      const wanted = preferences.typed(typedNumber(draft.value.area), 'area');
      return {
        words: say`${preferences.show(free, 'area')} of ${preferences.show(insideAreaM2, 'area')} free`,
        over:
          wanted > free + 0.005
            ? say`That is ${preferences.show(wanted - free, 'area')} more than is free; it is kept, but check what still stands there.`
            : null,
      };
    }
    const bench = here.place.place.design;
    const { values } = container.value;
    const tray = { lengthMm: values.trayLengthMm, widthMm: values.trayWidthMm };
    const left = Math.max(0, stands.layout.freeLengthMm);
    const more = left > 0 ? traysOnBench({ lengthMm: left, widthMm: bench.widthMm }, tray).value : 0;
    const wanted = typedNumber(draft.value.trays);
    return {
      words: say`${count(more)} more fit, ${count(more * values.cellsPerTray)} cells`,
      over:
        wanted > more
          ? say`That is ${count(wanted - more)} more than fit in the room left; it is kept, but check what still stands there.`
          : null,
    };
  });
  const onBench = computed(() => place.value?.occupancy.kind === 'bench');
  const densityPerM2 = computed(() => preferences.typed(typedNumber(draft.value.density), 'density'));
  const areaM2 = computed(() => preferences.typed(typedNumber(draft.value.area), 'area'));
  /** Cells or trees this stage has room for. */
  const holds = computed(() =>
    onBench.value
      ? typedNumber(draft.value.trays) * container.value.values.cellsPerTray
      : Math.floor(densityPerM2.value * areaM2.value + 1e-9),
  );
  const stageOf = (id: string): NewStage =>
    onBench.value
      ? {
          kind: 'container',
          id,
          placeId: draft.value.placeId,
          containerTypeId: draft.value.containerTypeId,
          trays: typedNumber(draft.value.trays),
        }
      : {
          kind: 'bed',
          id,
          placeId: draft.value.placeId,
          densityPerM2: densityPerM2.value,
          areaM2: Math.round(areaM2.value * 1e4) / 1e4,
        };
  return { places, place, container, room, onBench, densityPerM2, holds, stageOf };
}
