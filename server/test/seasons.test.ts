import type { BodyInputOf, OrderLine, Proposal } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { startServer } from '../src/start';
import { addPerson, openTestServer, setUpLots, TODAY, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let visitor: Caller;
let grower: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  grower = await addPerson(server, yard.nurseryId, 'grower@testing.example', 'grower');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
  await yard.owner.ok('addOrders', {
    params: yard.nursery,
    body: {
      id: newId(),
      orders: [
        { id: newId(), buyer: 'A farm', reach: '', note: '', lines: [line(), line({ count: 90_000 })] },
      ],
    },
  });
});
afterAll(() => server.close());

const line = (more: Partial<OrderLine> = {}): OrderLine => ({
  id: newId(),
  speciesId: yard.speciesId('BPE'),
  provenance: '',
  form: 'bare-root',
  fromCm: null,
  toCm: null,
  count: 60,
  sent: 0,
  on: '2027-12-01',
  until: '2028-01-20',
  goesTo: '',
  price: 2,
  state: 'asked',
  lots: [],
  ...more,
});
const asked = { chance: 0.9, hoursAWeek: null, hourCost: 15, treeWorth: 1 };
const season = (name = 'First', more: Partial<BodyInputOf<'propose'>> = {}) => ({
  params: yard.nursery,
  body: { id: newId(), name, asked, ...more },
});
const list = async (as = grower) => (await as.ok('proposals', { params: yard.nursery })).proposals;
const at = (id: string) => ({ params: { ...yard.nursery, proposal: id } });
/** A proposal once it is no longer worked on. */
const ended = (id: string): Promise<Proposal> =>
  vi.waitFor(
    async () => {
      const one = (await list()).find((proposal) => proposal.id === id)!;
      expect(one.state).not.toBe('working');
      return one;
    },
    { timeout: 60_000, interval: 100 },
  );

describe('a season planned on the server', () => {
  let first: Proposal;
  it('is worked out off the thread that answers, line by line, and is for all to read', async () => {
    const wanted = season();
    const [at] = (await grower.ok('propose', wanted)).proposals;
    expect(at).toMatchObject({ id: wanted.body.id, name: 'First', state: 'working', result: null });
    // Asked for again by a connection that broke, it is the same.
    expect((await grower.ok('propose', wanted)).proposals).toHaveLength(1);
    first = await ended(at.id);
    expect(first).toMatchObject({ state: 'done', step: 'done', fault: null, madeOn: TODAY });
    const { lines, sowings, bound, cost } = first.result!;
    // What the yard cannot hold gives way to what it can.
    expect(lines[0].sown).toBeGreaterThan(50);
    expect(lines[1].sown).toBeGreaterThan(100);
    expect(lines[1]).toMatchObject({ why: 'no room' });
    expect(sowings.length).toBeGreaterThan(0);
    expect(bound!).toBeLessThanOrEqual(cost + 1e-6);
    expect(await list(visitor)).toEqual(await list());
  });
  it('refuses a visitor, somebody of another nursery, and terms that make no sense', async () => {
    expect((await visitor.send('propose', season())).status).toBe(403);
    const wrong = await grower.send('propose', season('x', { asked: { ...asked, chance: 0.2 } }));
    expect(wrong.status).toBe(422);
    expect((await grower.send('stopProposal', { ...at(newId()), body: { id: newId() } })).status).toBe(404);
    const stranger = await setUpElsewhere();
    expect((await stranger.send('proposals', { params: yard.nursery })).status).toBe(404);
  });
  it('becomes the plan when it is chosen: what is pinned stays, two people are both told', async () => {
    const before = await grower.ok('plan', { params: yard.nursery });
    const chosen = await grower.ok('chooseProposal', { ...at(first.id), body: { version: before.version } });
    expect(chosen.plan.sowings).toEqual(first.result!.sowings.map(({ sowing }) => sowing));
    const stale = await grower.send('chooseProposal', { ...at(first.id), body: { version: before.version } });
    expect(stale.status).toBe(409);
    expect((await list()).map((one) => one.chosen)).toEqual([true]);
    // Pinned by hand, it is planned around; what was planned before that knows nothing of it.
    const [mine] = chosen.plan.sowings;
    const pinned = { ...mine, id: newId(), pinned: true, lineId: null };
    const kept = await grower.ok('setPlan', {
      params: yard.nursery,
      body: { version: chosen.version, plan: { schema: 1, sowings: [...chosen.plan.sowings, pinned] } },
    });
    const refusal = await grower.refused('chooseProposal', {
      ...at(first.id),
      body: { version: kept.version },
    });
    expect(refusal.detail).toMatch(/does not know of: plan the season anew/);
    const second = season('Second');
    await grower.ok('propose', second);
    const beside = await ended(second.body.id);
    expect(beside.result!.kept).toEqual([pinned.id]);
    const now = await grower.ok('chooseProposal', { ...at(beside.id), body: { version: kept.version } });
    expect(now.plan.sowings.map(({ id }) => id)).toContain(pinned.id);
    expect((await list()).map((one) => one.chosen)).toEqual([false, true]);
  });
  it('is renamed, and thrown away', async () => {
    await grower.ok('nameProposal', { ...at(first.id), body: { name: 'January' } });
    expect((await list())[0].name).toBe('January');
    await grower.ok('removeProposal', { ...at(first.id), body: { id: newId() } });
    expect((await list()).map(({ name }) => name)).toEqual(['Second']);
  });
  it('is one at a time, and stopped keeps what it has', async () => {
    const third = season('Third');
    await grower.ok('propose', third);
    const busy = await grower.send('propose', season('Fourth'));
    // Either the third was done already, or this one is told to wait.
    expect([200, 409]).toContain(busy.status);
    await grower.ok('stopProposal', { ...at(third.body.id), body: { id: newId() } });
    expect(['stopped', 'done']).toContain((await ended(third.body.id)).state);
  });
  it('goes on with whoever starts next, when whoever worked on it is gone', async () => {
    const [{ id }] = await list();
    await server.owner.query(
      `update season_proposal set state = 'working', result = null, touched_at = now() - interval '1 minute' where id = $1`,
      [id],
    );
    const next = await startServer({
      databaseUrl: server.databaseUrl,
      port: 0,
      demo: false,
      today: TODAY,
      logLevel: 'silent',
    });
    try {
      const again = await ended(id);
      expect(again.state).toBe('done');
      expect(again.result!.lines).toHaveLength(2);
    } finally {
      await next.stop();
    }
  });
});

/** Somebody signed in who belongs to no nursery here. */
async function setUpElsewhere(): Promise<Caller> {
  const other = await addPerson(server, yard.nurseryId, 'gone@testing.example', 'visitor');
  await server.owner.query(
    `delete from membership where person_id = (select id from person where email = 'gone@testing.example')`,
  );
  return other;
}
