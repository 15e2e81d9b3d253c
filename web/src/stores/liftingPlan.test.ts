import type { KeptLiftingPlan, LiftingPlan } from '@kauri/core/contract';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, expect, it, vi } from 'vitest';
import { ProblemError } from '../api/problem';
import { useLiftingPlan } from './liftingPlan';

const world = vi.hoisted(() => ({}) as { kept: KeptLiftingPlan; meanwhile: (() => void) | null });
vi.mock('./nursery', () => ({ useNursery: () => ({ nurseryId: 'n', params: { nursery: 'n' } }) }));
vi.mock('./others', () => ({ useOthers: () => ({ follow: () => undefined }) }));
vi.mock('../api/client', () => ({
  call: (name: string, { body }: { body: { version: number; plan: LiftingPlan } }) => {
    if (name === 'liftingPlan') return Promise.resolve(world.kept);
    world.meanwhile?.();
    if (body.version !== world.kept.version)
      return Promise.reject(
        new ProblemError({
          type: '/problems/stale-edit',
          title: '',
          status: 409,
          detail: 'Edited meanwhile.',
        }),
      );
    world.kept = { version: body.version + 1, plan: body.plan };
    return Promise.resolve(world.kept);
  },
}));

const hands = { people: 2, hoursADay: 6, weekdays: [0, 1, 2, 3, 4] };
const theirs = { lotId: 'b', day: '2026-12-01' };
beforeEach(() => {
  setActivePinia(createPinia());
  world.kept = { version: 1, plan: { schema: 1, hands, moved: [] } };
  world.meanwhile = null;
});

it('moves a lot over what somebody else moved meanwhile: both are kept', async () => {
  const plan = useLiftingPlan();
  await plan.load();
  world.meanwhile = () => {
    world.kept = { version: 2, plan: { ...world.kept.plan, moved: [theirs] } };
    world.meanwhile = null;
  };
  await plan.move('a', '2026-12-03');
  expect(world.kept).toMatchObject({
    version: 3,
    plan: { moved: [theirs, { lotId: 'a', day: '2026-12-03' }] },
  });
  await plan.move('b', null);
  expect([...plan.moved.keys()]).toEqual(['a']);
});

it('gives up where others write every time, and says so', async () => {
  const plan = useLiftingPlan();
  await plan.load();
  world.meanwhile = () => (world.kept = { ...world.kept, version: world.kept.version + 1 });
  await expect(plan.move('a', '2026-12-03')).rejects.toThrow('Edited meanwhile.');
});
