import { byNature } from '@kauri/core';
import type { Catalogue } from '@kauri/core/contract';
import { asc, eq } from 'drizzle-orm';
import { containerType, medium, place, species } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { toSpecies } from '../seed/species';
import { toPlace } from './places';

/** What lots refer to: places, species, containers and media. */
export async function catalogueOf(
  tx: Tx,
  nurseryId: string,
): Promise<Pick<Catalogue, 'places' | 'species' | 'containers' | 'media'>> {
  const places = await tx.select().from(place).where(eq(place.nurseryId, nurseryId));
  places.sort((a, b) => byNature(a.name, b.name));
  const kinds = await tx
    .select()
    .from(species)
    .where(eq(species.nurseryId, nurseryId))
    .orderBy(asc(species.common));
  const containers = await tx
    .select()
    .from(containerType)
    .where(eq(containerType.nurseryId, nurseryId))
    .orderBy(asc(containerType.id));
  const media = await tx.select().from(medium).where(eq(medium.nurseryId, nurseryId)).orderBy(asc(medium.id));
  return {
    places: places.map(toPlace),
    species: kinds.map(toSpecies),
    containers: containers.map(({ id, version, values }) => ({ id, version, values })),
    media: media.map(({ id, version, values }) => ({
      id,
      version,
      values,
    })) as Catalogue['media'],
  };
}
