import interact from 'interactjs';
import { boxAround, snapMove, type Box, type Point } from '@kauri/core';
import { onBeforeUnmount, watch, type Ref } from 'vue';

export interface Dragging {
  frame: Ref<SVGElement | null | undefined>;
  scale: () => number;
  snap: () => boolean;
  /** What moves when a thing is taken hold of. */
  moving: (id: string) => readonly string[];
  boxOfThing: (id: string) => Box | null;
  /** Boxes that a move is drawn to. */
  others: (moving: readonly string[]) => readonly Box[];
  dropped: (ids: readonly string[], move: Point) => void;
  /** Move under way, for what is said of it; null at its end. */
  during?: (ids: readonly string[], move: Point | null) => void;
}

const GRID_M = 0.1;
const PATH_M = 0.6;
const REACH_PX = 9;

/**
 * Dragging things on the plan by pointer or touch. While it lasts only the dragged shapes' own attribute is
 * changed, so that a yard of hundreds of places follows the hand.
 */
export function useDragging({ frame, scale, snap, moving, boxOfThing, others, dropped, during }: Dragging) {
  let held: { ids: readonly string[]; box: Box; near: readonly Box[]; shapes: SVGElement[] } | null = null;
  let move: Point = [0, 0];
  let stop = () => {};
  watch(
    frame,
    (svg) => {
      stop();
      if (!svg) return;
      // The pointer's look is the style sheet's: set on the whole page it would lay all of it out again.
      const thing = interact('[data-id]', { context: svg })
        .styleCursor(false)
        .draggable({
          // The ground pans; only things are dragged.
          allowFrom: '[data-id]',
          listeners: {
            start: ({ target }: { target: SVGElement }) => {
              const ids = moving(target.dataset.id!);
              const boxes = ids.map(boxOfThing).filter((b): b is Box => b !== null);
              held = {
                ids,
                box: boxAround(boxes),
                near: others(ids),
                shapes: ids.flatMap((id) => [...svg.querySelectorAll<SVGElement>(`[data-id="${id}"]`)]),
              };
              for (const shape of held.shapes) shape.dataset.was = shape.getAttribute('transform') ?? '';
            },
            move: ({
              clientX,
              clientY,
              clientX0,
              clientY0,
            }: Interact.DragEvent & { clientX0: number; clientY0: number }) => {
              if (!held) return;
              const s = scale();
              const raw: Point = [(clientX - clientX0) / s, -(clientY - clientY0) / s];
              move = snap()
                ? snapMove(held.box, raw, held.near, { gridM: GRID_M, reachM: REACH_PX / s, pathM: PATH_M })
                : raw;
              for (const shape of held.shapes)
                shape.setAttribute('transform', `translate(${move[0]} ${move[1]}) ${shape.dataset.was}`);
              during?.(held.ids, move);
            },
            end: () => {
              if (!held) return;
              const { ids, shapes } = held;
              for (const shape of shapes) {
                if (shape.dataset.was) shape.setAttribute('transform', shape.dataset.was);
                else shape.removeAttribute('transform');
                delete shape.dataset.was;
              }
              held = null;
              during?.(ids, null);
              if (Math.hypot(move[0], move[1]) > 1e-6) dropped(ids, move);
              move = [0, 0];
            },
          },
        });
      stop = () => thing.unset();
    },
    { immediate: true },
  );
  onBeforeUnmount(() => stop());
}
