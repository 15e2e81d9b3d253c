import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import * as core from './index';

type Expected = number | null | { [field: string]: Expected };
interface Case {
  function: string;
  input: unknown[];
  expected: Expected;
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
    const expectNear = (value: unknown, expected: Expected, at: string) => {
      if (expected === null) expect(value, at).toBeNull();
      else if (typeof expected === 'number')
        expect(Math.abs((value as number) - expected), at).toBeLessThanOrEqual(c.tolerance);
      else
        for (const [field, one] of Object.entries(expected))
          expectNear((value as Record<string, unknown>)[field], one, field);
    };
    expectNear(got, c.expected, c.function);
  });
});
