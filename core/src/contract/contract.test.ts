import { describe, expect, it } from 'vitest';
import {
  BedDesignSchema,
  EmergenceCount,
  Lift,
  mayAct,
  NewLot,
  openApi,
  paths,
  PlainDate,
  RootPull,
  routes,
  SizeSample,
} from './index';

const id = '019aa5b0-7c00-7000-8000-000000000001';
const entry = { id, on: '2026-06-01', note: '' };

describe('the contract', () => {
  it('has one route for every path, and none twice', () => {
    expect(Object.keys(routes).sort()).toEqual(Object.keys(paths).sort());
    const places = Object.values(routes).map((route) => `${route.method} ${route.path}`);
    expect(new Set(places).size).toBe(places.length);
  });
  it('describes every route in OpenAPI 3.1, with its problem', () => {
    const doc = openApi('1.2.3') as {
      openapi: string;
      paths: Record<
        string,
        Record<
          string,
          { operationId: string; responses: Record<string, unknown>; parameters: { name: string }[] }
        >
      >;
    };
    expect(doc.openapi).toBe('3.1.0');
    const operations = Object.values(doc.paths).flatMap((methods) => Object.values(methods));
    expect(operations.map((o) => o.operationId).sort()).toEqual(Object.keys(routes).sort());
    for (const o of operations) expect(o.responses).toHaveProperty('default');
    expect(doc.paths['/api/nurseries/{nursery}/lots/{lot}'].get.parameters.map((p) => p.name)).toEqual([
      'nursery',
      'lot',
    ]);
  });
  it('lets nobody but visitors and up read, and only growers and owners redesign', () => {
    expect(routes.addPlace.access).toBe('grower');
    expect(routes.sowLot.access).toBe('grower');
    expect(routes.measureLot.access).toBe('crew');
    expect(routes.lots.access).toBe('visitor');
    expect(mayAct('crew', 'grower')).toBe(false);
    expect(mayAct('owner', 'grower')).toBe(true);
    expect(mayAct('visitor', 'crew')).toBe(false);
  });
});

describe('what is sent', () => {
  it.each(['2025-02-29', '1949-12-31', '2151-01-01', '24/11/2026', ''])('%s is no date of work', (text) => {
    expect(PlainDate.safeParse(text).success).toBe(false);
  });
  it('29 Feb of a leap year is', () => expect(PlainDate.parse('2028-02-29')).toBe('2028-02-29'));
  it.each([
    [EmergenceCount, { ...entry, counted: -1, cause: null }],
    [EmergenceCount, { ...entry, counted: 1.5, cause: null }],
    [EmergenceCount, { ...entry, counted: null, cause: null }],
    [EmergenceCount, { ...entry, counted: '12', cause: null }],
    [SizeSample, { ...entry, heightsCm: [], diametersMm: [] }],
    [SizeSample, { ...entry, heightsCm: [0], diametersMm: [] }],
    [SizeSample, { ...entry, heightsCm: [9000], diametersMm: [] }],
    [RootPull, { ...entry, scores: [5], spoiled: 0 }],
    [RootPull, { ...entry, scores: [2], spoiled: 2 }],
    [Lift, { ...entry, lifted: 0, culled: 0 }],
    [Lift, { ...entry, id: 'not-an-id', lifted: 1, culled: 0 }],
  ] as const)('is refused with a sentence when it makes no sense', (schema, body) => {
    const { error } = schema.safeParse(body);
    expect(error!.issues[0].message).toMatch(/[.]$/);
  });
  it('a bed of 400 m is refused in words', () => {
    const design = {
      schema: 1,
      measured: 'inside',
      lengthMm: 400_000,
      widthMm: 1200,
      tiers: ['2x8'],
      layers: [],
      fillBelowRimMm: 0,
      ground: 'soil',
      airGapMm: 200,
      lidAboveRimMm: null,
    };
    expect(BedDesignSchema.safeParse(design).error!.issues[0].message).toBe(
      'Bed length: a number from 200 to 30\u202f000 mm (0.2 to 30 m).',
    );
    expect(BedDesignSchema.safeParse({ ...design, lengthMm: 4000, tiers: ['3x7'] }).success).toBe(false);
    const found = { shape: 'round', heightMm: 300, wallMm: 3, taper: 0.9, emptyKg: 2, seasons: 5 };
    const read = (more: object) => BedDesignSchema.safeParse({ ...design, lengthMm: 600, ...more });
    expect(read({ tiers: [], found }).success).toBe(true);
    for (const neither of [{ tiers: [] }, { found }])
      expect(read(neither).error!.issues[0].message).toBe('A bed needs at least one tier of boards.');
    expect(read({ tiers: [], found: { ...found, taper: 1.4 } }).error!.issues[0].message).toMatch(
      /turn it over/,
    );
  });
  it('names keep their quotes and angle brackets as they are, but hold no control characters', () => {
    const lot = {
      id,
      code: `<b>'; drop table lot;--`,
      speciesId: id,
      sownOn: '2026-04-08',
      seedState: 'ready',
      targetHeightCm: null,
      seeds: 10,
      stage: { kind: 'bed', id, placeId: id, densityPerM2: 200, areaM2: 1 },
    };
    expect(NewLot.parse(lot).code).toBe(lot.code);
    expect(NewLot.safeParse({ ...lot, code: 'a\u0000b' }).success).toBe(false);
    expect(NewLot.safeParse({ ...lot, code: '   ' }).success).toBe(false);
  });
});
