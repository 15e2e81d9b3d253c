import type { Catalogue } from '../contract';
import { speech, word } from '../speech/say';
import { byNature } from '../words/nature';

type Named = Pick<Catalogue, 'species' | 'containers' | 'media'>;

/**
 * A catalogue whose names that Kauri gave (species, containers, media) are in the language of the moment; what somebody
 * wrote themselves stays as they wrote it.
 */
export function givenNames<T extends Named>(catalogue: T): T {
  if (Object.keys(speech().catalogue).length === 0) return catalogue;
  return {
    ...catalogue,
    species: catalogue.species
      .map((one) => ({ ...one, common: word(one.common) }))
      .sort((a, b) => byNature(a.common, b.common)),
    containers: catalogue.containers.map(named),
    media: catalogue.media.map(named),
  };
}

function named<V extends { name: string }, R extends { values: V }>(row: R): R {
  return { ...row, values: { ...row.values, name: word(row.values.name) } };
}
