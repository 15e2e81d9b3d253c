import { expect, test } from 'vitest';
import { containersIn, startingContainers } from './startingContainers';

test('containers are named in the units of the nursery, and stay the same containers', () => {
  expect(containersIn('metric')).toBe(startingContainers);
  const us = containersIn('us');
  expect(us.map((c) => c.name).filter((name) => /\bm?L\b/.test(name))).toEqual([]);
  expect(us.map((c) => c.name)).toContain('Tube 9\u00a0in³, racked');
  expect(new Set(us.map((c) => c.name)).size).toBe(us.length);
  expect(us.map(({ name: _, ...rest }) => rest)).toEqual(
    startingContainers.map(({ name: _, ...rest }) => rest),
  );
});
