import { deathCauses, treeStateNames } from '@kauri/core';
import type { Planting, Walk } from '@kauri/core/contract';
import { csvOf } from '../../tables/csv';

/** What was planted as a table: a line for each part of each planting. Heights in cm, places in degrees. */
export const plantedTable = (plantings: readonly Planting[], speciesName: (id: string) => string): string =>
  csvOf(
    plantings.flatMap((planting) =>
      planting.parts.map((part) => ({
        planting: planting.name,
        where: planting.where,
        purpose: planting.purpose,
        ground: planting.ground,
        mulch: planting.mulch,
        day: part.on,
        lot: part.code,
        species: speciesName(part.speciesId),
        form: part.form,
        raised_in: part.raisedIn,
        grade: part.grade,
        from_cm: part.fromCm ?? '',
        to_cm: part.toCm ?? '',
        trees: part.count,
        guard: part.guard,
        guard_now: part.guardNow,
        stake: part.stake,
        planter: part.planter,
        note: part.note,
        by: part.by,
      })),
    ),
  );

/** What walks found as a table: a line for each part of each walk, the states and what the dead died of in columns. */
export const walkTable = (
  walks: readonly Walk[],
  plantings: readonly Planting[],
  speciesName: (id: string) => string,
): string => {
  const byId = new Map(plantings.map((planting) => [planting.id, planting]));
  return csvOf(
    walks.flatMap((walk) => {
      const planting = byId.get(walk.plantingId);
      const parts = new Map(planting?.parts.map((part) => [part.id, part]));
      return walk.found.map(({ partId, found, causes }) => {
        const part = parts.get(partId);
        return {
          planting: planting?.name ?? '',
          day: walk.on,
          kind: walk.kind,
          ended: walk.endedAt === null ? 'no' : 'yes',
          lot: part?.code ?? '',
          species: part ? speciesName(part.speciesId) : '',
          planted: part?.count ?? '',
          ...Object.fromEntries(treeStateNames.map((state) => [state.replace(' ', '_'), found[state] ?? 0])),
          ...Object.fromEntries(
            deathCauses.map((cause) => [
              `of_${cause}`,
              causes.find((one) => one.cause === cause)?.count ?? 0,
            ]),
          ),
          note: walk.note,
          by: walk.by,
        };
      });
    }),
  );
};
