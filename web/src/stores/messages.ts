import { defineStore } from 'pinia';
import { ref } from 'vue';
import { KEPT, type Outcome } from '../device/keptAnswer';

export interface Message {
  id: number;
  text: string;
  /** Takes back what the message tells of. */
  undo?: () => Promise<void>;
}

/** What was done and, where it is only on this device, that it is. */
export const saidOf = (outcome: Outcome, said: string): string =>
  outcome === KEPT ? `${said} Kept on this device until there is a network.` : said;

/** Short words at the edge of the screen about what was done, with its undo. */
export const useMessages = defineStore('messages', () => {
  const messages = ref<Message[]>([]);
  let last = 0;
  function say(text: string, undo?: () => Promise<void>) {
    const id = ++last;
    messages.value = [...messages.value.slice(-2), { id, text, undo }];
    setTimeout(() => dismiss(id), undo ? 15_000 : 6_000);
  }
  function dismiss(id: number) {
    messages.value = messages.value.filter((m) => m.id !== id);
  }
  return { messages, say, dismiss };
});
