import type { Cover } from '../home/home';
import type { Catalogue, Climate, LearntValues } from '../contract';
import type { SiteElement } from '../site/elements';
import type { Lookup } from './factsFrom';
import { givenNames } from './givenNames';
import { lightOfPlaces } from './placeLight';

/** What stands on the plan of a nursery, and where on the earth that is. */
export interface PlanOnEarth {
  elements: readonly SiteElement[];
  latitudeDeg: number;
  longitudeDeg: number;
}

/** A catalogue as forecasts look things up in it, with covers, learnt values and the plan's shade where there are some. */
export function lookupFrom(
  catalogue: Pick<Catalogue, 'species' | 'places' | 'containers' | 'media'>,
  climate?: Climate,
  learnt?: LearntValues,
  plan?: PlanOnEarth,
): Lookup {
  const { species, places, containers, media } = givenNames(catalogue);
  const byId = <T extends { id: string }>(rows: readonly T[]) => new Map(rows.map((row) => [row.id, row]));
  return {
    species: byId(species),
    places: byId(places),
    containers: byId(containers),
    media: byId(media),
    covers: coversByPlace(climate),
    learnt: learnt?.values,
    bands: learnt?.bands,
    light: plan && lightOfPlaces(places, plan.elements, plan),
  };
}

function coversByPlace(climate?: Climate): ReadonlyMap<string, Cover> {
  const covers = new Map(climate?.covers.map((cover) => [cover.id, cover]));
  return new Map(
    (climate?.places ?? []).flatMap(({ placeId, coverId }) => {
      const cover = covers.get(coverId);
      return cover ? [[placeId, { lowC: cover.lowC, highC: cover.highC }] as const] : [];
    }),
  );
}
