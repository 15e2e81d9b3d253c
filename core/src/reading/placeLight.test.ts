import { describe, expect, it } from 'vitest';
import type { Place } from '../contract';
import type { SiteElement } from '../site/elements';
import { lightOfPlaces } from './placeLight';

const site = { latitudeDeg: 54.6, longitudeDeg: -2.4 };
const bench = (id: string, eastM: number, northM: number) =>
  ({
    id,
    version: 1,
    place: { kind: 'bench', name: id, eastM, northM, angleDeg: 0, design: { lengthMm: 2000, widthMm: 1000 } },
  }) as unknown as Place;
const places = [bench('beside', 10.5, 11), bench('far', 60, 60)];
const barn = (passes?: number): SiteElement =>
  ({
    id: 'barn',
    kind: passes === undefined ? 'building' : 'shade',
    name: 'Barn',
    heightM: 8,
    passesInLeaf: passes,
    // South of the bench, or over it.
    points: passes === undefined ? [[5, 2], [20, 2], [20, 9], [5, 9]] : [[5, 5], [20, 5], [20, 20], [5, 20]], // prettier-ignore
  }) as unknown as SiteElement;

describe('light of places', () => {
  it('is all of it in the open, and where no plan was drawn', () => {
    expect(lightOfPlaces(places, [], site).size).toBe(0);
    expect(lightOfPlaces(places, [barn()], site).has('far')).toBe(false);
  });
  it('is less in the shadow of a barn and under a net, mirrored in the south', () => {
    const north = lightOfPlaces(places, [barn()], site).get('beside')!;
    expect(north).toBeGreaterThan(0.2);
    expect(north).toBeLessThan(0.85);
    expect(lightOfPlaces(places, [barn(0.5)], site).get('beside')!).toBeCloseTo(0.5, 1);
    // In the south the sun stands north of it: a barn to the south hardly shades.
    const south = lightOfPlaces(places, [barn()], { ...site, latitudeDeg: -41 }).get('beside') ?? 1;
    expect(south).toBeGreaterThan(north);
  });
});
