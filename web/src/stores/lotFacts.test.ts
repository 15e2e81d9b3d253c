import { lookupFrom, speciesLibrary, startingContainers } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';
import { describe, expect, it } from 'vitest';
import { factsReader, sameEvidence } from './lotFacts';

const species = { ...speciesLibrary[0], id: 's1', version: 1 } as never;
const container = { id: 'c1', version: 1, values: startingContainers[0] } as never;
const lookup = lookupFrom({ species: [species], places: [], containers: [container], media: [] });
const row = (id: string, speciesId = 's1') =>
  ({
    id,
    code: id,
    speciesId,
    sownOn: '2026-04-08',
    seedState: 'ready',
    origin: 'seed',
    cutting: null,
    extraWinters: 0,
    targetHeightCm: 30,
    leafFallOn: null,
    stage: { placeId: 'p1', containerTypeId: 'c1', densityPerM2: null },
  }) as never as LotRow;
const none = (lotId: string) =>
  ({
    lotId,
    counts: [],
    sizes: [],
    pulls: [],
    movements: [],
    care: [],
    events: [],
    roots: [],
    culls: [],
    stages: [],
  }) as never as Evidence;
const asMaps = (rows: LotRow[], evidence: Evidence[]) =>
  [new Map(rows.map((r) => [r.id, r])), new Map(evidence.map((e) => [e.lotId, e]))] as const;

describe('facts of lots', () => {
  it('are made anew for the lot that changed, and for all when the catalogue did', () => {
    const { all: read } = factsReader();
    const [a, b] = [row('a'), row('b')];
    const [ea, eb] = [none('a'), none('b')];
    const first = read(...asMaps([a, b], [ea, eb]), lookup);
    const second = read(...asMaps([a, b], [none('a'), eb]), lookup);
    expect(second.facts.get('a')).not.toBe(first.facts.get('a'));
    expect(second.facts.get('b')).toBe(first.facts.get('b'));
    const third = read(...asMaps([a, b], [ea, eb]), { ...lookup });
    expect(third.facts.get('b')).not.toBe(second.facts.get('b'));
  });
  it('say why one cannot be read, and leave no other out', () => {
    const { facts, faults } = factsReader().all(
      ...asMaps([row('a'), row('odd', 'nobody'), row('coming')], [none('a'), none('odd')]),
      lookup,
    );
    expect([...facts.keys()]).toEqual(['a']);
    expect(faults.get('odd')).toMatch(/species that is not in the list/);
    expect(faults.has('coming')).toBe(false);
  });
});

describe('records read again', () => {
  const counted = (...entries: string[]) =>
    ({
      ...none('a'),
      counts: entries.map((entry) => ({ entry, on: '2026-05-01', count: 1 })),
    }) as never as Evidence;
  it('are the same only record by record: one struck and one added between are seen', () => {
    expect(sameEvidence(counted('1', '2', '3'), counted('1', '2', '3'))).toBe(true);
    expect(sameEvidence(counted('1', '2', '3'), counted('1', 'x', '3'))).toBe(false);
    expect(sameEvidence(counted('1', '2'), counted('1', '2', '3'))).toBe(false);
  });
  it('see a stage that was ended', () => {
    const staged = (endedOn: string | null) =>
      ({ ...none('a'), stages: [{ id: 's', endedOn }] }) as never as Evidence;
    expect(sameEvidence(staged(null), staged('2026-06-01'))).toBe(false);
  });
});
