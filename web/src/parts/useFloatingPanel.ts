import { autoUpdate, flip, offset, size, useFloating } from '@floating-ui/vue';
import { computed, watch, type ComponentPublicInstance, type Ref, type StyleValue } from 'vue';

type Part = Ref<HTMLElement | ComponentPublicInstance | null>;

/** Room a panel leaves at the screen’s edge, px. */
const EDGE_PX = 8;

/**
 * Places a panel at what opened it: above every sheet, out of what scrolls, within the screen. The panel is a popover of its
 * own (`popover="manual"`) and shown as soon as it is there, so that the keys can be handed to it at once.
 * @param tallPx how tall it grows at most, px
 */
export function useFloatingPanel(opener: Part, panel: Part, tallPx: number) {
  const { floatingStyles } = useFloating(opener, panel, {
    strategy: 'fixed',
    transform: false,
    placement: 'bottom-start',
    whileElementsMounted: autoUpdate,
    middleware: [
      offset(4),
      flip({ padding: EDGE_PX }),
      size({
        padding: EDGE_PX,
        apply({ rects, availableWidth, availableHeight, elements }) {
          Object.assign(elements.floating.style, {
            minWidth: `${rects.reference.width}px`,
            maxWidth: `${availableWidth}px`,
            maxHeight: `${Math.min(tallPx, availableHeight)}px`,
          });
        },
      }),
    ],
  });
  const element = computed<HTMLElement | null>(() =>
    panel.value instanceof HTMLElement ? panel.value : (panel.value?.$el ?? null),
  );
  watch(element, (shown) => shown?.showPopover?.(), { flush: 'sync' });
  return computed<StyleValue>(() => [floatingStyles.value, { margin: 0, right: 'auto', bottom: 'auto' }]);
}
