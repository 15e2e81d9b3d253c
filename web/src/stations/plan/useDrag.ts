import type { Stay } from '@kauri/core';
import { dayOf, say } from '@kauri/core';
import type { Place, PlannedSowing } from '@kauri/core/contract';
import { computed, shallowRef } from 'vue';

/** A planned sowing as it is carried over the board: by so many weeks, and over which place it is held. */
export interface Carried {
  sowing: PlannedSowing;
  stay: Stay;
  weeks: number;
  place: Place | null;
}

/** Why a stage cannot stand in a place; null where it can. */
export function whyNotIn(
  { containerTypeId }: Pick<PlannedSowing['stages'][number], 'containerTypeId'>,
  { place }: Place,
): string | null {
  if (containerTypeId === null) return place.kind === 'bed' ? null : say`Plants in a bed need a bed.`;
  return place.kind === 'bench' || place.kind === 'ground'
    ? null
    : say`Trays stand on a bench or on standing ground.`;
}

/** The stage of a sowing that stands where and when a stay says. */
export const stageOf = ({ stages }: PlannedSowing, { placeId, from }: Stay): number =>
  stages.findIndex((stage) => stage.placeId === placeId && dayOf(stage.from) === from);

/** The sowing with the stage of a stay put into another place. */
export function putInto(sowing: PlannedSowing, stay: Stay, placeId: string): PlannedSowing {
  const at = stageOf(sowing, stay);
  return { ...sowing, stages: sowing.stages.map((stage, i) => (i === at ? { ...stage, placeId } : stage)) };
}

/** Pixels that a pointer moves before it carries anything: a press alone chooses. */
const FIRM_PX = 5;

/**
 * Planned sowings carried over the board by mouse or pen; fingers scroll it.
 * @param placeAt the place of the row at a height on the screen
 * @param dropped is told where one was let go, if anything is to change
 */
export function useDrag(
  weekPx: number,
  placeAt: (clientY: number) => Place | null,
  dropped: (carried: Carried) => void,
) {
  const held = shallowRef<{ sowing: PlannedSowing; stay: Stay; x: number; y: number } | null>(null);
  const carried = shallowRef<Carried | null>(null);
  function grab(event: PointerEvent, sowing: PlannedSowing, stay: Stay) {
    if (event.pointerType === 'touch' || event.button !== 0) return;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    held.value = { sowing, stay, x: event.clientX, y: event.clientY };
  }
  function carry({ clientX, clientY }: PointerEvent) {
    const of = held.value;
    if (!of) return;
    const firm = Math.hypot(clientX - of.x, clientY - of.y) >= FIRM_PX;
    if (!carried.value && !firm) return;
    carried.value = {
      sowing: of.sowing,
      stay: of.stay,
      weeks: Math.round((clientX - of.x) / weekPx),
      place: placeAt(clientY),
    };
  }
  function release() {
    const of = carried.value;
    letGo();
    if (of && (of.weeks !== 0 || (of.place && of.place.id !== of.stay.placeId))) dropped(of);
  }
  function letGo() {
    held.value = null;
    carried.value = null;
  }
  /** Why what is carried cannot be put where it is held. */
  const why = computed(() => {
    const of = carried.value;
    if (!of?.place) return null;
    const at = stageOf(of.sowing, of.stay);
    return at < 0 ? null : whyNotIn(of.sowing.stages[at], of.place);
  });
  return { carried, why, grab, carry, release, letGo };
}
