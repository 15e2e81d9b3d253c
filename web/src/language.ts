import { english, speakBy, speech, speechOf, type Catalogue, type Speech } from '@kauri/core';

/** Every language there is a file of; each is fetched when it is spoken. */
const files = import.meta.glob<{ default: Catalogue }>('../../core/languages/*.json');
const tagOf = (file: string) => file.replace(/^.*\/|\.json$/g, '');
const tags = [english.tag, ...Object.keys(files).map(tagOf)];

/** Languages to choose from, each by its own name. */
export const languages = tags.map((tag) => ({
  value: tag,
  words: new Intl.DisplayNames(tag, { type: 'language' })
    .of(tag)!
    .replace(/^\p{Ll}/u, (l) => l.toUpperCase()),
}));

const CHOSEN = 'kauri.language';
/** What the nursery that was opened here last speaks, so that the door does too. */
const NURSERY = 'kauri.nurseryLanguage';

/** What somebody chose on this device; null where the nursery’s holds. */
const chosenLanguage = () => localStorage.getItem(CHOSEN);

/** Chooses for this device, and begins the page anew in that language; what is half typed stays. */
export function chooseLanguage(tag: string | null): void {
  if (tag === null) localStorage.removeItem(CHOSEN);
  else localStorage.setItem(CHOSEN, tag);
  location.reload();
}

/** The nearest language there is a file of: the very one, else one of the same tongue. */
export function nearest(wanted: readonly (string | null)[]): string {
  for (const tag of wanted) {
    if (tag === null) continue;
    const found = tags.find((t) => t === tag) ?? tags.find((t) => t.split('-')[0] === tag.split('-')[0]);
    if (found) return found;
  }
  return english.tag;
}

/** Speaks what was chosen here, or what the nursery speaks, or what the browser asks for. */
export async function beginSpeaking(nursery?: string): Promise<void> {
  if (nursery !== undefined) localStorage.setItem(NURSERY, nursery);
  const tag = nearest([chosenLanguage(), localStorage.getItem(NURSERY), ...navigator.languages]);
  if (tag !== speech().tag) speak(await load(tag));
  document.documentElement.lang = speech().tag;
}

async function load(tag: string): Promise<Speech> {
  const file = Object.keys(files).find((path) => tagOf(path) === tag);
  // Without its file (a new build, no network) the page speaks English.
  const words = file && (await files[file]().catch(() => null));
  return words ? speechOf(tag, words.default) : english;
}

function speak(spoken: Speech): void {
  speakBy(() => spoken);
}
