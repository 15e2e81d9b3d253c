import {
  fromShown,
  formatQuantity,
  footprintOf,
  occupancyOf,
  startingContainers,
  startingMedia,
  toShown,
  type BedDesign,
  type Lookup,
  type Quantity,
  type UnitSystem,
} from '@kauri/core';
import type { Place, PlaceBody, Stage } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { bedAnswers } from './bedAnswers';
import { buildFields, foundFields, fromDesign, meshes, toDesign, type BedForm } from './bedForm';
import { overlaps } from './patches';
import { placeDecision } from './placeDecision';
import { roomWords, sizeWords } from './placeWords';
import { planParts } from './plan/planParts';
import { spotWarning } from './spotWarning';
import type { ShownPlace } from './usePlaces';

const units = (system: UnitSystem) => ({
  show: (value: number, quantity: Quantity, digits?: number) =>
    formatQuantity(value, quantity, system, digits),
  shown: (value: number, quantity: Quantity) => toShown(value, quantity, system),
  typed: (value: number, quantity: Quantity) => fromShown(value, quantity, system),
});
const metric = units('metric');

const form: BedForm = {
  name: 'Bed',
  measured: 'outside',
  ...foundFields(null, metric),
  length: '2400',
  width: '1200',
  tiers: ['50x200', '50x200'],
  mediumId: '',
  fillBelowRim: '30',
  mesh: '13',
  grid: true,
  cloth: '0.5',
  ground: 'paving',
  airGap: '90',
  lid: true,
  lidAboveRim: '400',
  east: '0',
  north: '0',
  angle: '0',
  ...buildFields({ lengthMm: 2400, tiers: ['50x200', 'riser'] } as unknown as BedDesign),
  density: '240',
  builtOn: '',
};
const design = toDesign(form, metric);
const bed: Extract<PlaceBody, { kind: 'bed' }> = {
  kind: 'bed',
  name: 'Bed 1',
  eastM: 2,
  northM: 3,
  angleDeg: 0,
  mediumId: null,
  design: design as Extract<PlaceBody, { kind: 'bed' }>['design'],
};
const bench: PlaceBody = {
  ...bed,
  kind: 'bench',
  name: 'Bench 1',
  eastM: 10,
  design: { schema: 1, lengthMm: 4000, widthMm: 1500 },
};
const lookup: Lookup = {
  species: new Map(),
  places: new Map(),
  media: new Map(),
  containers: new Map([['tube', { id: 'tube', version: 1, values: startingContainers[1] }]]),
};
const stage = (more: Partial<Stage>): Stage => ({
  id: 's',
  placeId: 'p',
  containerTypeId: null,
  trays: null,
  densityPerM2: null,
  areaM2: null,
  startedOn: '2026-04-01',
  endedOn: null,
  ...more,
});
function shown(body: PlaceBody, stages: Stage[], id = 'p'): ShownPlace {
  const place: Place = { id, version: 1, place: body };
  const occupancy = occupancyOf(
    place,
    stages.map((s, i) => ({ lotId: `lot ${i}`, stage: s })),
    lookup,
  );
  return {
    place,
    footprint: footprintOf(body),
    occupancy,
    lots: stages.map(() => ({}) as ShownPlace['lots'][number]),
  };
}

describe('the bed form', () => {
  it('says in SI what was typed, and comes back as it went, in either system', () => {
    for (const system of ['metric', 'us'] as const) {
      const u = units(system);
      const text = { ...form, ...fromDesign(design, u) };
      expect(toDesign(text, u)).toEqual(design);
    }
    expect(design.layers.map((layer) => layer.kind)).toEqual(['cloth', 'mesh', 'mesh', 'support']);
  });
  it('makes no number of what is none, and leaves the lid off where there is none', () => {
    expect(toDesign({ ...form, length: 'long' }, metric).lengthMm).toBeNaN();
    expect(toDesign({ ...form, lid: false, lidAboveRim: 'x' }, metric).lidAboveRimMm).toBeNull();
  });
  it('offers meshes whose openings are larger than their wire', () => {
    for (const mesh of meshes) expect(Math.min(...mesh.openingMm)).toBeGreaterThan(mesh.wireMm * 3);
  });
  it('answers, or says in a sentence why it cannot', () => {
    const answers = bedAnswers(design, startingMedia[0], 240);
    expect(answers.trees).toBe(Math.floor(answers.geometry.insideAreaM2 * 240));
    expect(answers.airShare).toBeLessThan(0.5);
    expect(() => bedAnswers({ ...design, fillBelowRimMm: 900 }, startingMedia[0], 240)).toThrow(
      /holds no medium/,
    );
    expect(() => bedAnswers(design, startingMedia[0], NaN)).toThrow(/density/);
  });
});

describe('a place in words', () => {
  it('tells its size and its room', () => {
    expect(sizeWords(bed, metric)).toBe('bed 2.40\u00a0m × 1.20\u00a0m, 50x200 + 50x200');
    expect(roomWords(shown(bed, []).occupancy, metric)).toBe('2.55\u00a0m² free');
    expect(roomWords(shown(bed, [stage({ areaM2: 2.55, densityPerM2: 200 })]).occupancy, metric)).toBe(
      'full',
    );
    expect(roomWords(shown(bed, [stage({ areaM2: 3, densityPerM2: 200 })]).occupancy, metric)).toBe(
      '0.45\u00a0m² too much',
    );
    expect(roomWords(shown(bench, [stage({ containerTypeId: 'tube', trays: 8 })]).occupancy, metric)).toMatch(
      /m free$/,
    );
    expect(
      roomWords(shown(bench, [stage({ containerTypeId: 'tube', trays: 60 })]).occupancy, metric),
    ).toMatch(/too long$/);
  });
  it('decides first: too full, too low, too shallow, then room', () => {
    const decide = (p: ShownPlace, tight: string[] = []) => placeDecision(p, tight, metric);
    expect(decide(shown(bed, [stage({ areaM2: 3, densityPerM2: 200 })]))).toMatchObject({
      urgent: true,
      headline: expect.stringContaining('More stands here'),
    });
    const low = shown({ ...bed, design: { ...bed.design, ground: 'weeds' } }, []);
    expect(decide(low)).toMatchObject({ urgent: true, headline: expect.stringContaining('Raise it') });
    const shallow = shown({ ...bed, design: { ...bed.design, tiers: ['50x150'] } }, []);
    expect(decide(shallow).headline).toContain('Shallow');
    // Judged by the medium that is in it: what settles more may be too shallow where the usual is not.
    const deep = shown({ ...bed, design: { ...bed.design, tiers: ['50x225'] } }, []);
    expect(placeDecision(deep, [], metric, 0.1).headline).not.toContain('Shallow');
    expect(placeDecision(deep, [], metric, 0.5).headline).toContain('Shallow');
    expect(decide(shown(bed, [])).headline).toBe('Empty: all of it is free');
    expect(decide(shown(bed, []), ['Bed 2']).detail).toContain('No barrow path to Bed 2');
  });
});

describe('the plan', () => {
  const rect = { x: 100, y: 50, w: 200, h: 80 };
  const within = (p: ShownPlace) => {
    const parts = planParts(p, rect);
    for (const part of parts) {
      expect(part.x).toBeGreaterThanOrEqual(rect.x - 1e-6);
      expect(part.y).toBeGreaterThanOrEqual(rect.y - 1e-6);
      expect(part.x + part.w).toBeLessThanOrEqual(rect.x + rect.w + 1e-6);
      expect(part.y + part.h).toBeLessThanOrEqual(rect.y + rect.h + 1e-6);
    }
    return parts;
  };
  it('draws every tray and stretch inside its place, over-full too', () => {
    expect(within(shown(bench, [stage({ containerTypeId: 'tube', trays: 9 })]))).toHaveLength(9);
    const two = [stage({ areaM2: 1, densityPerM2: 200 }), stage({ areaM2: 1, densityPerM2: 200 })];
    expect(within(shown(bed, two))).toHaveLength(2);
    within(shown(bed, [stage({ areaM2: 9, densityPerM2: 200 })]));
    within(shown(bench, [stage({ containerTypeId: 'tube', trays: 300 })]));
    expect(within(shown(bed, []))).toEqual([]);
  });
  it('warns of a place on another, and of a path too narrow, but not of itself', () => {
    const places = [shown(bed, [], 'a'), shown(bench, [], 'b')];
    const warn = (body: PlaceBody, own?: string) => spotWarning(body, own, places, []);
    expect(warn({ ...bed, name: 'New', eastM: 3 })).toBe('New and Bed 1 stand on the same ground.');
    expect(warn({ ...bed, name: '', northM: 4.5 })).toContain(
      'Between this place and Bed 1 a barrow does not pass',
    );
    expect(warn({ ...bed, northM: 6 })).toBeNull();
    expect(warn(bed, 'a')).toBeNull();
    expect(warn({ ...bed, design: { ...bed.design, lengthMm: NaN } })).toBeNull();
    expect(warn({ ...bed, eastM: NaN })).toBeNull();
  });
});

describe('patches of a bed', () => {
  const taken = [
    { code: 'A', patch: { fromMm: 0, toMm: 900, firstRow: null, lastRow: null } },
    { code: 'B', patch: { fromMm: 900, toMm: 1800, firstRow: null, lastRow: null } },
  ];
  it.each([
    [0, 400, ['A 400']],
    [600, 1000, ['A 300', 'B 100']],
    [1800, 2400, []],
  ])('from %i to %i mm share with %j', (fromMm, toMm, shared) =>
    expect(overlaps({ fromMm, toMm }, taken).map((t) => `${t.code} ${t.sharedMm}`)).toEqual(shared),
  );
});
