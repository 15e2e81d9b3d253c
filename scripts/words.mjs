import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { wordsInCode } from './words/wordsInCode.mjs';

/*
 * npm run words              what each language lacks, and what it holds that no code says any more
 * npm run words -- fr        begins a language, or brings its file up to date: what it lacks is written in with an empty
 *                            translation, what is said no more is taken out
 */
const folder = fileURLToPath(new URL('../core/languages/', import.meta.url));
const words = wordsInCode();
const [tag] = process.argv.slice(2);

if (tag) {
  const file = join(folder, `${tag}.json`);
  const before = read(file);
  const { pluralCategories } = new Intl.PluralRules(tag).resolvedOptions();
  const blank = (noun) => (noun ? Object.fromEntries(pluralCategories.map((form) => [form, ''])) : '');
  const entries = [...words].map(([english, { noun }]) => [english, before[english] ?? blank(noun)]);
  writeFileSync(file, `${JSON.stringify(Object.fromEntries(entries.sort(byKey)), null, 2)}\n`);
  console.log(
    `${file}: ${entries.length} words, ${entries.filter(([k]) => !before[k]).length} to translate.`,
  );
} else
  for (const name of readdirSync(folder)) {
    const catalogue = read(join(folder, name));
    // American English says most things as they are.
    const lacks = name.startsWith('en') ? [] : [...words.keys()].filter((english) => !catalogue[english]);
    const left = Object.keys(catalogue).filter((english) => !words.has(english));
    console.log(`${name}: ${words.size - lacks.length} of ${words.size}`);
    for (const english of lacks.slice(0, 40))
      console.log(`  lacks  ${JSON.stringify(english)}  (${words.get(english).where})`);
    for (const english of left) console.log(`  unused ${JSON.stringify(english)}`);
  }

function byKey([a], [b]) {
  return a < b ? -1 : 1;
}
function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch (error) {
    if (error.code !== 'ENOENT') throw error;
    return {};
  }
}
