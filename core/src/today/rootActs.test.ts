import { describe, expect, it } from 'vitest';
import type { Decision, Standing, Status } from '../forecast/standing';
import { leavesSoon, rootActs, type JudgedLot } from './rootActs';
import { sequentialVerdict } from '../roots/sequentialPlan';
import { usualTerms } from '../roots/lotVerdict';

const TODAY = 1000;
const lot = (
  lotId: string,
  status: Status,
  decision: Decision,
  fails: boolean[],
  standing = 100,
): JudgedLot => ({
  lotId,
  trees: standing,
  leavesSoon: leavesSoon({ status, decision } as Standing, TODAY),
  verdict: sequentialVerdict(usualTerms, fails, 20).value,
});
const good = Array<boolean>(9).fill(false);
const lift: Decision = { kind: 'lift', from: 990, bestBefore: 1100, until: 1120 };
const moveBy = (by: number): Decision => ({ kind: 'move-by', holdsSince: 900, by, half: by + 30 });
const grow: Decision = { kind: 'grow-on', rests: true, missed: null, liftFrom: 1300, liftUntil: 1400 };

describe('what roots ask for', () => {
  it('is a rejected lot by itself, and those that leave unjudged together', () => {
    const acts = rootActs([
      lot('rejected', 'growing', grow, [true, true]),
      lot('lifting', 'lift', lift, []),
      lot('holding', 'holding', moveBy(1010), [false, false]),
      lot('judged', 'lift', lift, good),
      lot('far off', 'ready', moveBy(1200), []),
      lot('growing', 'growing', grow, []),
      lot('gone', 'lift', lift, [], 0),
    ]);
    expect(acts).toEqual([
      {
        rule: 'roots-rejected',
        lotIds: ['rejected'],
        when: 'week',
        by: null,
        figures: { failing: 2, pulled: 2 },
      },
      {
        rule: 'judge-roots',
        lotIds: ['lifting', 'holding'],
        when: 'weeks',
        by: null,
        figures: { lots: 2, begun: 1 },
      },
    ]);
  });
  it('is nothing where all are judged or none leaves', () => {
    expect(rootActs([lot('a', 'lift', lift, good), lot('b', 'growing', grow, [])])).toEqual([]);
    expect(rootActs([])).toEqual([]);
  });
});
