import interact from 'interactjs';
import { onBeforeUnmount, watch, type Ref } from 'vue';

/** Pixels a pointer goes before it drags what it holds. */
const BEGINS_PX = 6;

/**
 * Blocks of a board taken by a pointer and let go over a day: what has `data-lot` moves to what has `data-day`. A tap or a
 * key on a block stays what it is.
 * @param dropped the lot, and the day it was let go over
 */
export function useMovingBlocks(
  board: Ref<HTMLElement | null>,
  allowed: () => boolean,
  dropped: (lotId: string, day: number) => void,
): void {
  let stop = () => {};
  let justMoved = false;
  watch(
    () => (allowed() ? board.value : null),
    (element) => {
      stop();
      stop = () => {};
      if (!element) return;
      // The click that ends a drag opens nothing.
      const swallow = (event: MouseEvent) => {
        if (!justMoved) return;
        justMoved = false;
        event.stopPropagation();
        event.preventDefault();
      };
      element.addEventListener('click', swallow, { capture: true });
      const blocks = interact('[data-lot]', { context: element })
        .styleCursor(false)
        .draggable({
          listeners: {
            start: ({ target }: { target: HTMLElement }) => {
              target.dataset.moving = '';
            },
            move: (event: Interact.DragEvent & { clientX0: number; clientY0: number }) => {
              const block = event.target as HTMLElement;
              block.style.translate = `${event.clientX - event.clientX0}px ${event.clientY - event.clientY0}px`;
            },
            end: ({ target }: { target: HTMLElement }) => {
              justMoved = true;
              requestAnimationFrame(() => (justMoved = false));
              target.style.translate = '';
              delete target.dataset.moving;
            },
          },
        });
      interact.pointerMoveTolerance(BEGINS_PX);
      const days = interact('[data-day]', { context: element }).dropzone({
        accept: '[data-lot]',
        overlap: 'pointer',
        listeners: {
          dragenter: ({ target }: { target: HTMLElement }) => (target.dataset.over = ''),
          dragleave: ({ target }: { target: HTMLElement }) => delete target.dataset.over,
          drop: ({ target, relatedTarget }: { target: HTMLElement; relatedTarget: HTMLElement }) => {
            delete target.dataset.over;
            dropped(relatedTarget.dataset.lot!, Number(target.dataset.day));
          },
        },
      });
      stop = () => {
        element.removeEventListener('click', swallow, { capture: true });
        blocks.unset();
        days.unset();
      };
    },
    { immediate: true },
  );
  onBeforeUnmount(() => stop());
}
