import fc from 'fast-check';
import { expect, test } from 'vitest';
import { wakingGroups } from '../species/waking';
import { wakeSeed, wakeTables, type Spell } from './waking';

const kinds = Object.values(wakingGroups);
/** Parts of the need of warmth by which the table may be out in a day. */
const GAIN_OFF_A_DAY = 0.001;
const day = fc.double({ min: -15, max: 32, noNaN: true });

test('many seeds through many days come as far as each of them alone', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...kinds),
      fc.constantFrom(0, 2, 5),
      fc.array(day, { minLength: 1, maxLength: 60 }),
      fc.array(fc.array(day, { minLength: 40, maxLength: 40 }), { minLength: 1, maxLength: 3 }),
      fc.double({ min: -0.8, max: 0.8, noNaN: true }),
      (waking, swingC, past, years, depth) => {
        const tables = wakeTables(
          years.map((ahead) => Float64Array.of(...past, ...ahead)),
          swingC,
          waking,
          [0, depth],
        );
        years.forEach((ahead, year) => {
          const spells = [...past, ...ahead].map((meanC): Spell => [1, meanC]);
          const alone = wakeSeed({ spells, swingC, waking, depthLog: depth });
          const last = spells.length - 1;
          expect(tables[year].dormancy[1][last]).toBeCloseTo(alone.dormancy, 9);
          // A day close to the base, where growth sets in, is out by at most a quarter of the table's step.
          expect(Math.abs(tables[year].heat[1][last] - alone.heat)).toBeLessThan(
            GAIN_OFF_A_DAY * spells.length + 0.02 * alone.heat,
          );
        });
      },
    ),
    { numRuns: 60 },
  );
});

test('a seed that has had enough stays as far as it came', () => {
  const warm = new Float64Array(200).fill(15);
  const [table] = wakeTables([warm], 0, wakingGroups['white oaks'], [0], 1.5);
  const heat = table.heat[0];
  expect(heat.findIndex((h) => h >= 1.5)).toBeGreaterThan(0);
  expect(heat[199]).toBe(heat[heat.findIndex((h) => h >= 1.5)]);
});
