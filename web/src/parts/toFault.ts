import { nextTick } from 'vue';

/**
 * Takes the keys to the first field within what was refused that something is wrong with. Where none is they stay, and the
 * sentence is brought into sight: it may stand below what the screen shows.
 */
export async function toFault(refused: Element | null | undefined): Promise<void> {
  await nextTick();
  const field = refused?.querySelector<HTMLElement>('[aria-invalid="true"]');
  if (field) field.focus();
  else refused?.querySelector('[role="alert"]')?.scrollIntoView({ block: 'nearest' });
}
