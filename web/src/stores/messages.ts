import { say } from '@kauri/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { sentenceOf } from '../api/problem';
import { KEPT, type Outcome } from '../device/keptAnswer';

export interface Message {
  id: number;
  text: string;
  /** Takes back what the message tells of. */
  undo?: () => Promise<void>;
}

/** What was done and, where it is only on this device, that it is. */
export const saidOf = (outcome: Outcome, said: string): string =>
  outcome === KEPT ? say`${said} Kept on this device until there is a network.` : said;

/** Short words at the edge of the screen about what was done, with its undo. */
export const useMessages = defineStore('messages', () => {
  const messages = ref<Message[]>([]);
  let last = 0;
  /** What was done last that can be taken back, also once its words are gone. */
  let latest: Message | null = null;
  function tell(text: string, undo?: () => Promise<void>) {
    const id = ++last;
    const message = { id, text, undo };
    messages.value = [...messages.value.slice(-2), message];
    if (undo) latest = message;
    setTimeout(() => dismiss(id), undo ? 15_000 : 6_000);
  }
  function dismiss(id: number) {
    messages.value = messages.value.filter((m) => m.id !== id);
  }
  /** Takes back what a message tells of, and says so; where that can no longer be, it says why. */
  async function undo(message: Message) {
    dismiss(message.id);
    if (latest?.id === message.id) latest = null;
    try {
      await message.undo!();
      tell(say`Taken back: ${message.text}`);
    } catch (error) {
      tell(sentenceOf(error));
    }
  }
  const undoLast = async () => {
    if (latest) await undo(latest);
    else
      tell(
        say`Nothing was done here that could be taken back; what is recorded is taken back where it is listed.`,
      );
  };
  return { messages, say: tell, dismiss, undo, undoLast };
});
