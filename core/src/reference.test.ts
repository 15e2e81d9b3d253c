import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import * as core from './index';

interface Case {
  function: string;
  input: unknown[];
  expected: number | null | Record<string, number | null>;
  tolerance: number;
}

const folder = new URL('../reference/', import.meta.url);
const named = core as unknown as Record<string, (...args: unknown[]) => unknown>;

describe.each(readdirSync(folder).sort())('reference values of %s', (file) => {
  const { cases } = JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as { cases: Case[] };
  const built = cases.filter((c) => typeof named[c.function] === 'function');

  it('leaves out no function', () =>
    expect(cases.filter((c) => !built.includes(c)).map((c) => c.function)).toEqual([]));

  it.each(built.map((c, i) => [`${c.function} #${i + 1}`, c] as const))('%s', (_, c) => {
    let got = named[c.function](...c.input);
    if (got !== null && typeof got === 'object' && 'working' in got)
      got = (got as unknown as { value: unknown }).value;
    if (c.expected === null) {
      expect(got).toBeNull();
      return;
    }
    if (typeof c.expected === 'number') {
      expect(Math.abs((got as number) - c.expected)).toBeLessThanOrEqual(c.tolerance);
      return;
    }
    for (const [field, expected] of Object.entries(c.expected)) {
      const value = (got as Record<string, number | null>)[field];
      if (expected === null) expect(value, field).toBeNull();
      else expect(Math.abs((value as number) - expected), field).toBeLessThanOrEqual(c.tolerance);
    }
  });
});
