import { readdirSync, readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { describe, expect, it } from 'vitest';
import { proseOutside } from '../../../scripts/words/proseOutside.mjs';
import { wordsInCode } from '../../../scripts/words/wordsInCode.mjs';
import type { Catalogue, Forms } from './say';

const folder = new URL('../../languages/', import.meta.url);
const catalogues = readdirSync(folder).map((file): [string, Catalogue] => [
  basename(file, '.json'),
  JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as Catalogue,
]);
const words = wordsInCode();
const valuesOf = (text: string) => [...text.matchAll(/\{\d+\}/g)].map(([value]) => value).sort();
const edgesOf = (text: string) => [/^\s*/.exec(text)![0], /\s*$/.exec(text)![0]];

it('every sentence of the code is found, with its values numbered', () => {
  expect(words.size).toBeGreaterThan(5000);
  expect(words.get('Half of forecasts have it up by {0}, nine in ten by {1}.')).toMatchObject({
    where: 'web/src/words/decision.ts',
    noun: false,
  });
  expect(words.get('batch')).toMatchObject({ noun: true, many: 'batches' });
});

it('no words of a page stand outside the catalogues', () => {
  expect(proseOutside(words)).toEqual([]);
});

describe.each(catalogues)('%s', (tag, catalogue) => {
  const isEnglish = tag.startsWith('en');

  it('says nothing that no code says', () => {
    expect(Object.keys(catalogue).filter((english) => !words.has(english))).toEqual([]);
  });

  it.skipIf(isEnglish)('is whole', () => {
    expect([...words.keys()].filter((english) => !catalogue[english])).toEqual([]);
  });

  it('puts every value where a sentence has one, and keeps the spaces it is joined by', () => {
    const wrong = Object.entries(catalogue).filter(
      ([english, said]) =>
        typeof said === 'string' &&
        (valuesOf(said).join() !== valuesOf(english).join() ||
          edgesOf(said).join('|') !== edgesOf(english).join('|')),
    );
    expect(wrong).toEqual([]);
  });

  it.skipIf(isEnglish)('has each noun in every form that its plural rules ask for', () => {
    const { pluralCategories } = new Intl.PluralRules(tag).resolvedOptions();
    // Spanish has a form for whole millions, said as the others.
    const asked = pluralCategories.filter((form) => !(tag === 'es' && form === 'many'));
    for (const [english, { noun }] of words)
      if (noun) expect([english, ...Object.keys(catalogue[english] as Forms)]).toEqual([english, ...asked]);
  });
});
