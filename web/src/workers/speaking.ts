import { speakBy, speech, speechOf, type Catalogue } from '@kauri/core';
import { expose, wrap, type Remote } from 'comlink';

const language = {
  speak(tag: string, catalogue: Catalogue): void {
    const spoken = speechOf(tag, catalogue);
    speakBy(() => spoken);
  },
};

/** Offers a worker’s work, and that it speaks the page’s language. */
export const exposeSpeaking = (api: object): void => expose({ ...api, ...language });

/** A worker as the page asks it: whatever it answers is in the page’s language. */
export function wrapSpeaking<T>(worker: Worker): Remote<T> {
  const remote = wrap<T & typeof language>(worker);
  const { tag, catalogue } = speech();
  // English is what a worker speaks anyway.
  if (Object.keys(catalogue).length) void remote.speak(tag, catalogue);
  return remote as Remote<T>;
}
