import { nextTick } from 'vue';

/** Takes the keys to the first field within what was refused that something is wrong with; where none is, they stay. */
export async function toFault(refused: Element | null | undefined): Promise<void> {
  await nextTick();
  refused?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
}
