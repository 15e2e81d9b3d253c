import { say } from '@kauri/core';
import { isDeepStrictEqual } from 'node:util';
import type { RaisingRoute, RouteStage } from '@kauri/core/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { containerType, place, species } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** What is new in a list, or other than before: what stands as it was is not asked about again, whatever it names. */
export function changedOf<T extends { id: string }>(now: readonly T[], before: readonly T[]): T[] {
  const old = new Map(before.map((one) => [one.id, one]));
  return now.filter((one) => !isDeepStrictEqual(one, old.get(one.id)));
}

/**
 * Routes, and sowings planned by them, speak of what this nursery has.
 * @throws Refusal 422 for a species, a container or a place that it does not have, naming the route
 */
export async function mustBeHere(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  routes: readonly (Pick<RaisingRoute, 'name' | 'speciesId'> & {
    stages: readonly Pick<RouteStage, 'placeId' | 'containerTypeId'>[];
  })[],
): Promise<void> {
  const known = async (table: typeof species | typeof containerType | typeof place, ids: string[]) =>
    new Set(
      ids.length
        ? (
            await tx
              .select({ id: table.id })
              .from(table)
              .where(and(eq(table.nurseryId, nurseryId), inArray(table.id, [...new Set(ids)])))
          ).map(({ id }) => id)
        : [],
    );
  const stages = routes.flatMap((route) => route.stages);
  const containers = stages.flatMap(({ containerTypeId }) =>
    containerTypeId === null ? [] : [containerTypeId],
  );
  const [speciesHere, containersHere, placesHere] = [
    await known(
      species,
      routes.map(({ speciesId }) => speciesId),
    ),
    await known(containerType, containers),
    await known(
      place,
      stages.map(({ placeId }) => placeId),
    ),
  ];
  for (const { name, speciesId, stages } of routes) {
    const fault = !speciesHere.has(speciesId)
      ? say`a species`
      : stages.some(({ placeId }) => !placesHere.has(placeId))
        ? say`a place`
        : stages.some(
              ({ containerTypeId }) => containerTypeId !== null && !containersHere.has(containerTypeId),
            )
          ? say`a container`
          : null;
    if (fault)
      throw new Refusal(422, 'invalid', say`“${name}” names ${fault} that this nursery does not have.`);
  }
}
