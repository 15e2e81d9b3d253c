import { useEventListener } from '@vueuse/core';

/** Single keys of a view; silent while something is being typed or a sheet is open. */
export function useKeys(keys: Record<string, () => void>): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
    const at = event.target as HTMLElement;
    if (
      at.closest('input, textarea, select, [role="listbox"], [contenteditable], [role="dialog"]') ||
      document.querySelector('[role="dialog"]')
    )
      return;
    const act = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });
}
