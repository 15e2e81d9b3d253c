import { dayOf } from '@kauri/core';
import { describe, expect, it } from 'vitest';
import { cameFrom, stoodLast } from './spentMedium';

type Records = Parameters<typeof stoodLast>[1] extends ReadonlyMap<string, infer R> ? R : never;
const stage = (placeId: string, startedOn: string, endedOn: string | null) =>
  ({ placeId, startedOn, endedOn }) as Records['stages'][number];
const out = (on: string) => ({ from: 'standing', on }) as Records['movements'][number];
const rot = (on: string) => ({ what: 'rot', on }) as Records['events'][number];
const rows = (...ids: string[]) =>
  ids.map((id) => ({ id, code: id.toUpperCase() })) as Parameters<typeof stoodLast>[0] extends Iterable<
    infer R
  >
    ? R[]
    : never;

describe('what stood in a bed last', () => {
  const evidence = new Map<string, Records>([
    [
      'a',
      {
        stages: [stage('bed', '2024-03-01', null)],
        movements: [out('2024-12-01')],
        events: [rot('2024-06-01')],
      },
    ],
    [
      'b',
      {
        stages: [stage('bench', '2026-03-01', '2026-05-01'), stage('bed', '2026-05-01', null)],
        movements: [out('2026-11-02'), out('2026-11-20')],
        // Before it came here.
        events: [rot('2026-04-01')],
      },
    ],
    ['c', { stages: [stage('bed', '2026-04-01', '2026-10-01')], movements: [], events: [rot('2026-06-01')] }],
  ]);
  it('is the crop whose last trees went last, and remembers rot there alone', () => {
    expect(stoodLast(rows('a', 'b'), evidence, 'bed')).toEqual({
      emptiedOn: dayOf('2026-11-20'),
      codes: ['B'],
      rotted: [],
    });
    expect(stoodLast(rows('a', 'b', 'c'), evidence, 'bed')).toMatchObject({
      codes: ['B', 'C'],
      rotted: ['C'],
    });
  });
  it('is nothing where nothing stood', () => {
    expect(stoodLast(rows('a', 'b', 'c'), evidence, 'elsewhere')).toBeNull();
    expect(stoodLast([], evidence, 'bed')).toBeNull();
  });
});

it('what came from Bed 10 did not come from Bed 1', () => {
  expect(cameFrom('from Bed 10, after 25-CSA-30', 'Bed 1')).toBe(false);
  expect(cameFrom('from Bed 1, after 25-CSA-30', 'Bed 1')).toBe(true);
});
