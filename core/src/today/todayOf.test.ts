import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ruleNames } from './lotActs';
import { todayRules } from './rules';
import { askedTogether, itemsOf, itemsOfLot, todayOf, type LotAsks, type SeedAsk } from './todayOf';

const DAY = 20_000;
const figures = {
  chance: 0.6,
  fill: 0.9,
  since: DAY - 5,
  half: DAY + 9,
  from: DAY,
  until: DAY + 60,
  seasons: 2,
  last: DAY - 60,
  fromStart: 0.5,
  around: DAY + 2,
  lastCount: DAY - 12,
  chanceReady: 0.5,
  chanceBound: 0.2,
  vigourFromStart: 0.4,
  missed: DAY - 30,
  next: DAY + 200,
  share: 0.6,
  harm: 1,
  mediumC: -9,
  limitC: -6,
  airC: -15,
  frozen: 1,
  on: DAY - 9,
};
const lot = (n: number, more: Partial<LotAsks> = {}): LotAsks => ({
  lotId: `lot ${n}`,
  code: `26-ALN-${n}`,
  standing: 100,
  sown: 0,
  acts: [],
  late: [],
  roots: { call: 'accept', failing: 0, pulled: 9 },
  leavesSoon: false,
  ...more,
});
const act = (lotId: string, rule: (typeof ruleNames)[number]) => ({
  lotId,
  rule,
  when: 'week' as const,
  by: DAY + 3,
  figures,
  trees: 100,
});
const lots = fc
  .array(fc.subarray([...ruleNames], { maxLength: 4 }), { maxLength: 6 })
  .map((all) => all.map((rules, n) => lot(n, { acts: rules.map((rule) => act(`lot ${n}`, rule)) })));
const nothing = { marks: [], rules: {}, work: [] };

describe('Today', () => {
  it('asks of one lot what it asks of it among all', () => {
    fc.assert(
      fc.property(lots, (all) => {
        const together = askedTogether(all.map(({ acts }) => acts));
        const items = itemsOf(all, [], DAY);
        for (const one of all)
          expect(itemsOfLot(one, together, [], DAY)).toEqual(
            items.filter(({ part, subjectId }) => part === 'lot' && subjectId === one.lotId),
          );
      }),
    );
  });

  it('goes round several seedbeds in one act, and one by its name', () => {
    const moist = (n: number) => lot(n, { sown: 100, acts: [act(`lot ${n}`, 'keep-moist')] });
    const [one] = itemsOf([moist(1), lot(2)], [], DAY);
    expect(one).toMatchObject({ subjectId: 'lot 1', of: 'lot' });
    const many = itemsOf([moist(1), moist(2), moist(3)], [], DAY);
    expect(many).toHaveLength(1);
    expect(many[0]).toMatchObject({ subjectId: null, of: 'lots', trees: 300 });
    expect(many[0].words.title).toBe('Keep 3 sowings moist until they are up or rooted');
  });
  it('speaks of cuttings as cuttings', () => {
    const stuck = (rule: 'after-sowing' | 'keep-moist', cuttings: number) => ({
      ...act('lot 1', rule),
      figures: { ...figures, sown: DAY - 1, bed: 1, cuttings },
    });
    const titles = [0, 1].map((cuttings) =>
      (['after-sowing', 'keep-moist'] as const).map(
        (rule) => itemsOf([lot(1, { acts: [stuck(rule, cuttings)] })], [], DAY)[0].words.title,
      ),
    );
    expect(titles).toEqual([
      ['Finish the sowing of 26-ALN-1', 'Keep 26-ALN-1 moist until it is up'],
      ['Settle the cuttings of 26-ALN-1', 'Keep 26-ALN-1 moist until it has roots'],
    ]);
  });
  it('tells frost once for all its lots, those at most risk first, and as pressing as they are', () => {
    const frosty = (n: number, harm: number, bed: number) =>
      lot(n, {
        acts: [
          {
            ...act(`lot ${n}`, 'root-frost'),
            when: harm ? 'now' : 'week',
            figures: { ...figures, harm, bed },
          },
        ],
      });
    const [one] = itemsOf([frosty(1, 0, 0), frosty(2, 1, 1), frosty(3, 1, 0)], [], DAY);
    expect(one).toMatchObject({ when: 'now', subjectId: null, trees: 300 });
    expect(one.words.title).toBe('Shelter the roots of 3 lots before night');
    expect(one.words.reason).toMatch(/^First 26-ALN-3, 26-ALN-2, 26-ALN-1\./);
    expect(one.words.reason).toContain('\u221215\u00a0°C (5\u00a0°F)');
  });
  it('says everything that asks once: to do, done for now, or muted', () => {
    fc.assert(
      fc.property(lots, fc.subarray([...todayRules]), fc.nat(5), (asks, muted, done) => {
        const items = itemsOf(asks, [], DAY);
        const rules = Object.fromEntries(muted.map((rule) => [rule, { muted: true, leadDays: 0 }]));
        const marks = items.slice(0, done).map((item, i) => ({
          id: String(i),
          rule: item.rule,
          subjectId: item.subjectId,
          mark: 'done' as const,
          on: DAY - 1,
          until: DAY + 5,
          reason: '',
          minutes: null,
          trees: 1,
          assignedTo: null,
        }));
        const agenda = todayOf(items, { marks, rules, work: [] }, DAY);
        expect(agenda.lines.length + agenda.hidden.length + agenda.muted).toBe(items.length);
        for (const { item } of agenda.lines) expect(muted).not.toContain(item.rule);
        for (const { item } of agenda.lines)
          expect(`${item.words.title} ${item.words.reason}`).not.toMatch(/NaN|undefined|Infinity/);
      }),
    );
  });
  it('names rejected roots lot by lot, and lots that leave unjudged together', () => {
    const open = { roots: { call: 'pull', failing: 0, pulled: 0 } as const, leavesSoon: true };
    const items = itemsOf(
      [lot(1, open), lot(2, open), lot(3, { roots: { call: 'reject', failing: 3, pulled: 4 } })],
      [],
      DAY,
    );
    expect(items.map(({ rule, subjectId, trees, about }) => [rule, subjectId, trees, about])).toEqual([
      ['roots-rejected', 'lot 3', 100, '26-ALN-3'],
      ['judge-roots', null, 200, '2 lots'],
    ]);
  });
  it('reckons no more seed at stake than one sowing uses, however much a bag holds', () => {
    const ask: SeedAsk = {
      act: {
        part: 'store',
        subjectId: 'bag',
        rule: 'retest',
        when: 'week',
        by: DAY,
        figures: { alive: 0.5, low: 0.4, high: 0.6 },
      },
      name: 'birch S-1',
      seeds: 600_000,
    };
    expect(itemsOf([], [ask], DAY)[0].trees).toBe(2000);
    expect(todayOf(itemsOf([], [{ ...ask, seeds: 40 }], DAY), nothing, DAY).lines[0].item.trees).toBe(40);
  });
  it('asks for planned sowings as their week comes near, and says so when it has gone by', () => {
    const ask = (from: number) => ({
      sowingId: 'p',
      name: 'common alder',
      route: 'Cells, as plugs',
      isStuck: false,
      from,
      treat: null,
      plants: 500,
      trees: 400,
      chance: 0.8,
    });
    const at = (from: number) => itemsOf([], [], DAY, { planned: [ask(from)] })[0];
    expect(at(DAY + 29)).toBeUndefined();
    expect([DAY + 28, DAY + 7, DAY, DAY - 20].map((from) => at(from).when)).toEqual([
      'weeks',
      'week',
      'now',
      'now',
    ]);
    expect(at(DAY + 7)).toMatchObject({ rule: 'sow-planned', subjectId: 'p', trees: 400, part: 'plan' });
    expect(at(DAY).words.title).toBe('Sow common alder as planned: Cells, as plugs');
    expect(at(DAY).words.reason).toMatch(
      /^Planned for the week of .*500 to stand, for 400 trees; in time in 80.% of/,
    );
    expect(at(DAY - 7).words.reason).toMatch(/^Was planned/);
    expect(at(DAY - 7).words.waiting).toMatch(/say there as which lot/);
    expect(itemsOf([], [], DAY, { planned: [{ ...ask(DAY), isStuck: true }] })[0].words.title).toMatch(
      /^Stick/,
    );
    // Seed that sleeps is put under treatment months before.
    const asleep = (from: number) => ({ ...ask(from), treat: { on: from - 140, days: 140, plants: 500 } });
    expect(itemsOf([], [], DAY, { planned: [asleep(DAY + 170)] })).toEqual([]);
    const [treat] = itemsOf([], [], DAY, { planned: [asleep(DAY + 145)] });
    expect(treat).toMatchObject({ rule: 'treat-planned', when: 'week', by: DAY + 5, part: 'plan' });
    const [late, sow] = itemsOf([], [], DAY, { planned: [asleep(DAY + 10)] });
    expect(late.words.waiting).toMatch(/move the sowing on the board/);
    expect(sow.rule).toBe('sow-planned');
    expect(itemsOf([], [], DAY, { planned: [asleep(DAY)] }).map(({ rule }) => rule)).toEqual(['sow-planned']);
  });
});
