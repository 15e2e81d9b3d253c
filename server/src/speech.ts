import { AsyncLocalStorage } from 'node:async_hooks';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { english, speakBy, speechOf, type Catalogue, type Speech } from '@kauri/core';

/** Where the catalogues lie: beside the built server, or in the core's own folder. */
const folder = ['./languages', '../languages', '../../core/languages']
  .map((path) => fileURLToPath(new URL(path, import.meta.url)))
  .find(existsSync)!;

/** Every language there is a file of, English first. */
const speeches = new Map<string, Speech>([
  [english.tag, english],
  ...readdirSync(folder)
    .filter((file) => file.endsWith('.json'))
    .map((file): [string, Speech] => {
      const tag = basename(file, '.json');
      return [tag, speechOf(tag, JSON.parse(readFileSync(join(folder, file), 'utf8')) as Catalogue)];
    }),
]);

/** Tags of the languages Kauri speaks here, BCP 47. */
export const languages = [...speeches.keys()];

const speaking = new AsyncLocalStorage<Speech>();
speakBy(() => speaking.getStore() ?? english);

/** Does something in a language; in English where there is no file of it. */
export function spokenIn<T>(tag: string, act: () => T): T {
  return speaking.run(speeches.get(tag) ?? english, act);
}
