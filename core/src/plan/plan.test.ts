import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOf } from '../calendar/day';
import { forecastLot } from '../forecast/forecast';
import type { LotFacts } from '../forecast/lotFacts';
import { standingOf } from '../forecast/standing';
import { startingSpecies } from '../species/startingSpecies';
import { generateWeather } from '../weather/generator';
import { knownWeather } from '../weather/known';
import { roughNormals } from '../weather/normals';
import { heldBy, lineStates, rivalsOf, treeForms, type WantedLine } from './orderLine';
import { orderTableLine, readOrderLine, type TableLine } from './orderTable';
import { answerAsk, mightServe, promisable, type PromiseAsk, type PromisableLot } from './promisable';

const ask: PromiseAsk = { speciesId: 'alder', form: 'plug', fromCm: 20, toCm: 40, on: 120 };
const line = (more: Partial<WantedLine> = {}): WantedLine => ({
  ...ask,
  count: 100,
  sent: 0,
  until: more.on ?? ask.on,
  state: 'promised',
  ...more,
});

describe('lines of orders', () => {
  it('hold trees only while they are promised and not sent', () => {
    expect(lineStates.map((state) => heldBy({ state, count: 100, sent: 30 }))).toEqual([0, 70, 70, 0, 0]);
  });
  it('lay claim to the trees of an ask where species, form and size meet', () => {
    const lines = [
      line(),
      line({ fromCm: 40, toCm: 60 }),
      line({ fromCm: 30, toCm: null }),
      line({ form: 'pot' }),
      line({ speciesId: 'oak' }),
      line({ state: 'asked' }),
    ];
    expect(rivalsOf(lines, ask)).toEqual([lines[0], lines[2]]);
  });
});

describe('an ask', () => {
  const lot = (id: string, from: number, until: number, count: number): PromisableLot => ({
    id,
    code: id,
    from,
    until,
    count,
    standing: 2 * count,
    likely: count,
    sure: true,
    holds: 1,
  });
  it('set against lots is served by them alone, and what is set against a lot holds no other', () => {
    const both = [lot('a', 100, 130, 500), lot('b', 100, 200, 300)];
    expect(answerAsk(both, [], { ...ask, lots: ['b'] })).toMatchObject({ free: 300 });
    expect(answerAsk(both, [], { ...ask, lots: ['gone'] })).toMatchObject({ free: 0 });
    // Promised of b only: of a all is free still.
    const promised = [line({ count: 250, lots: ['b'] })];
    expect(answerAsk(both, promised, { ...ask, lots: ['a'] }).free).toBe(500);
    expect(answerAsk(both, promised, ask).free).toBe(550);
    expect(answerAsk(both, [line({ count: 301, lots: ['b'] })], ask)).toMatchObject({ free: null, short: 1 });
  });
  it('is answered with what is left, from which lots, and what stands on other days', () => {
    const answer = answerAsk(
      [lot('a', 100, 130, 500), lot('b', 121, 200, 300)],
      [line({ on: 110, count: 200 })],
      ask,
    );
    expect(answer).toMatchObject({ free: 300, promised: 200, short: 0 });
    expect(answer.from.map(({ lot: { id }, count }) => [id, count])).toEqual([['a', 300]]);
    expect(answer.others.map(({ id }) => id)).toEqual(['b']);
  });
  it('is met on any day of its window', () => {
    const late = [lot('a', 130, 160, 500)];
    expect(answerAsk(late, [], ask).free).toBe(0);
    expect(answerAsk(late, [], { ...ask, until: 135 }).free).toBe(500);
    const promised = [line({ on: 100, until: 131, count: 200 })];
    expect(answerAsk(late, promised, { ...ask, until: 135 })).toMatchObject({ free: 300, short: 0 });
  });
  it('says how much of what is promised cannot be met', () => {
    expect(answerAsk([lot('a', 100, 130, 50)], [line({ on: 110, count: 80 })], ask)).toMatchObject({
      free: null,
      short: 30,
      from: [],
    });
  });
});

describe('a lot that is asked for', () => {
  const asOf = dayOf('2026-09-20');
  const series = generateWeather(roughNormals(54.6, 185), asOf - 3652, 3653, 7);
  const { outlook, warmth } = knownWeather(series, { latitudeDeg: 54.6, elevationM: 185 }, asOf);
  const facts = {
    id: 'a',
    code: '26-ALN-1',
    species: startingSpecies.find((s) => s.code === 'ALN')!.values,
    sownOn: dayOf('2026-04-08'),
    seedState: 'ready',
    home: { kind: 'container', name: 'Tube', cellMl: 110, depthMm: 140, airShare: 0.3 },
    targetHeightCm: null,
    leafFallOn: null,
    counts: [{ day: dayOf('2026-05-12'), count: 400 }],
    sizes: [{ day: dayOf('2026-09-15'), what: 'height', n: 20, mean: 30, sd: 6 }],
    pulls: [{ day: dayOf('2026-09-15'), scores: [3, 3, 2, 3, 3] }],
    movements: [
      { day: dayOf('2026-04-08'), from: 'supply', to: 'sown', count: 500 },
      { day: dayOf('2026-05-12'), from: 'sown', to: 'standing', count: 400 },
    ],
  } as unknown as LotFacts;
  const given = (more: Partial<PromiseAsk>) => {
    const asked = { ...ask, on: dayOf('2026-11-10'), ...more };
    const forecast = forecastLot(facts, outlook, warmth, { view: asked.on, sizes: asked });
    return promisable(facts, forecast, standingOf(facts, forecast)!, asked);
  };
  it('gives what is of the size nine times in ten, and never more than stands', () => {
    const some = given({})!;
    expect(some.count).toBeGreaterThan(200);
    expect(some.count).toBeLessThanOrEqual(some.likely);
    expect(some.likely).toBeLessThanOrEqual(some.standing);
    expect(given({ fromCm: null, toCm: null })!.count).toBe(400);
    expect(given({ fromCm: 80, toCm: null })).toBeNull();
  });
  it('is not counted on while its plugs are not known', () => {
    const unknown = { ...facts, pulls: [] };
    const asked = { ...ask, on: dayOf('2026-11-10') };
    const forecast = forecastLot(unknown, outlook, warmth, { view: asked.on, sizes: asked });
    const some = promisable(unknown, forecast, standingOf(unknown, forecast)!, asked)!;
    expect(some.sure).toBe(false);
    expect(mightServe({ ...some, holds: 0.5 })).toBe(true);
    expect(mightServe({ ...some, holds: 0.02 })).toBe(false);
    expect(mightServe({ ...some, holds: 0.5, sure: true })).toBe(false);
    expect(answerAsk([some], [], asked)).toMatchObject({ free: 0, others: [{ id: 'a' }] });
  });
  it('gives less of a narrower size, and nothing in another form', () => {
    expect(given({ fromCm: 28, toCm: 32 })!.count).toBeLessThan(given({})!.count);
    for (const form of ['bare-root', 'pot'] as const) expect(given({ form })).toBeNull();
  });
});

describe('a table of lines', () => {
  const lines: fc.Arbitrary<TableLine> = fc.record({
    buyer: fc.constantFrom('', 'Low Wood estate'),
    reach: fc.constantFrom('', 'by post'),
    species: fc.constantFrom('Alnus glutinosa', 'Common alder'),
    provenance: fc.constantFrom('', 'local'),
    lots: fc.constantFrom([], ['26-ALN-01'], ['A', 'B 2']),
    form: fc.constantFrom(...treeForms),
    fromCm: fc.option(fc.integer({ min: 1, max: 200 })),
    toCm: fc.option(fc.integer({ min: 1, max: 200 })),
    count: fc.integer({ min: 1, max: 1e6 }),
    sent: fc.integer({ min: 0, max: 1e6 }),
    on: fc.constantFrom('2027-01-15', '2027-11-01'),
    until: fc.constantFrom('2027-12-01', '2028-02-29'),
    goesTo: fc.constantFrom('', 'wet'),
    price: fc.option(fc.integer({ min: 0, max: 50 })),
    state: fc.constantFrom(...lineStates),
  });
  it('comes back as it went', () => {
    fc.assert(
      fc.property(lines, (one) => {
        const written = Object.fromEntries(
          Object.entries(orderTableLine(one)).map(([name, value]) => [name, String(value)]),
        );
        expect(readOrderLine(written)).toEqual(one);
      }),
    );
  });
  it.each([
    [{ count: '5', on: '2027-01-01' }, /species: a line says/],
    [{ species: 'x', on: '2027-01-01' }, /count: how many/],
    [{ species: 'x', count: 'many', on: '2027-01-01' }, /count: “many” is not a number/],
    [{ species: 'x', count: '5' }, /on: the day/],
    [{ species: 'x', count: '5', on: '2027-02-30' }, /not a date that exists/],
    [{ species: 'x', count: '5', on: '2027-02-20', form: 'basket' }, /form: “basket” is none of/],
  ])('says what is wrong with %j', (bad, sentence) => {
    expect(() => readOrderLine(bad)).toThrow(sentence);
  });
});
