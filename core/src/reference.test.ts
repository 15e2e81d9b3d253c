import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import * as core from './index';

interface Case {
  function: string;
  input: unknown[];
  expected: number | Record<string, number | null>;
  tolerance: number;
}

const file = new URL('../reference/reference-values.json', import.meta.url);
const { cases } = JSON.parse(readFileSync(file, 'utf8')) as { cases: Case[] };
const built = cases.filter((c) => typeof (core as Record<string, unknown>)[c.function] === 'function');

describe('reference values', () => {
  it('leaves out no function', () => expect(cases.filter((c) => !built.includes(c))).toEqual([]));

  it.each(built.map((c, i) => [`${c.function} #${i + 1}`, c] as const))('%s', (_, c) => {
    const run = (core as unknown as Record<string, (...args: unknown[]) => unknown>)[c.function];
    let got = run(...c.input);
    if (got !== null && typeof got === 'object' && 'working' in got)
      got = (got as unknown as { value: unknown }).value;
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
