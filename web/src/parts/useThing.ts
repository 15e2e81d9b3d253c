import { onScopeDispose, shallowRef, watchEffect } from 'vue';

/** What the page shown is about, by its name; null where it is about many. */
export const thing = shallowRef<string | null>(null);

/** Names what a page is about, for the browser’s tab, for as long as the page is there. */
export function useThing(name: () => string | null | undefined): void {
  watchEffect(() => (thing.value = name() ?? null));
  onScopeDispose(() => (thing.value = null));
}
