import { afterEach, expect, it } from 'vitest';
import { english, speakBy, speechOf } from '../speech/say';
import type { Catalogue } from '../contract';
import { givenNames } from './givenNames';

afterEach(() => speakBy(() => english));

const named = (...names: string[]) =>
  ({
    species: names.map((common) => ({ common })),
    containers: [],
    media: [],
  }) as unknown as Pick<Catalogue, 'species' | 'containers' | 'media'>;
const names = (of: ReturnType<typeof named>) => of.species.map(({ common }) => common);

it('names species in the language spoken, and lists them by those names', () => {
  const catalogue = named('Aspen', 'Blackthorn', 'My own tree', 'Rowan');
  expect(givenNames(catalogue)).toBe(catalogue);
  const spanish = speechOf('es', { Aspen: 'Álamo temblón', Blackthorn: 'Endrino', Rowan: 'Acebillo' });
  speakBy(() => spanish);
  expect(names(givenNames(catalogue))).toEqual(['Acebillo', 'Álamo temblón', 'Endrino', 'My own tree']);
});
