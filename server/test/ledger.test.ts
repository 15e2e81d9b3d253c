import { v7 as newId } from 'uuid';
import { afterAll, beforeEach, beforeAll, describe, expect, it } from 'vitest';
import { openTestServer, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let n = 0;
let lot: { nursery: string; lot: string };
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
});
afterAll(() => server.close());
beforeEach(async () => {
  lot = await yard.sow(`L-${++n}`, {
    kind: 'bed',
    id: newId(),
    placeId: yard.bed.id,
    densityPerM2: 200,
    areaM2: 0.5,
  });
});

const lift = (lifted: number, culled = 0, id = newId()) => ({
  params: lot,
  body: { id, on: '2026-11-20', lifted, culled },
});
const heldNow = async () => (await yard.owner.ok('lot', { params: lot })).lot.held;

describe('the ledger in the database', () => {
  it('accounts for every seed from sowing to lifting', async () => {
    await yard.owner.ok('liftLot', lift(60, 5));
    await yard.owner.ok('writeOff', {
      params: lot,
      body: { id: newId(), on: '2026-11-20', from: 'sown', cause: 'not-emerged', count: 20 },
    });
    expect(await heldNow()).toEqual({
      seed: 0,
      sown: 0,
      standing: 15,
      lifted: 60,
      sent: 0,
      planted: 0,
      out: 25,
    });
    const { rows } = await server.owner.query('select sum(held)::int as n from balance where lot_id = $1', [
      lot.lot,
    ]);
    expect(rows[0].n).toBe(100);
  });

  it('refuses to lift more than stand, and records nothing of it', async () => {
    const problem = await yard.owner.refused('liftLot', lift(80, 1));
    expect(problem).toMatchObject({ status: 409, type: '/problems/not-enough' });
    expect(problem.detail).toContain('80 of');
    expect((await heldNow()).standing).toBe(80);
    await yard.owner.ok('liftLot', lift(80));
    expect((await yard.owner.refused('liftLot', lift(1))).status).toBe(409);
  });

  it('lets only one of two people lift the same trees at once', async () => {
    const both = await Promise.all([
      yard.owner.send('liftLot', lift(60)),
      yard.owner.send('liftLot', lift(60)),
    ]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    expect(await heldNow()).toMatchObject({ standing: 20, lifted: 60 });
  });

  it('never goes below zero under many writers, and loses none', async () => {
    const all = await Promise.all(Array.from({ length: 30 }, () => yard.owner.send('liftLot', lift(7))));
    const taken = all.filter((r) => r.status === 200).length;
    expect(taken).toBe(11);
    expect(await heldNow()).toMatchObject({ standing: 80 - 77, lifted: 77 });
  });

  it('is guarded by the database itself, whoever writes', async () => {
    const insert = (count: number) =>
      server.owner.query(
        "insert into movement (nursery_id, id, lot_id, entry_id, on_date, from_account, to_account, count) values ($1, $2, $3, $4, '2026-11-20', 'standing', 'out:lost', $5)",
        [yard.nurseryId, newId(), lot.lot, newId(), count],
      );
    await expect(insert(81)).rejects.toThrow(/balance_not_below_zero/);
    await expect(insert(-1)).rejects.toThrow(/movement_count_positive/);
    const racing = await Promise.allSettled(Array.from({ length: 8 }, () => insert(30)));
    expect(racing.filter((r) => r.status === 'fulfilled')).toHaveLength(2);
    for (const r of racing)
      if (r.status === 'rejected') expect(String(r.reason)).toMatch(/balance_not_below_zero/);
    await expect(
      server.owner.query(
        "insert into movement (nursery_id, id, lot_id, entry_id, on_date, from_account, to_account, count) values ($1, $2, $3, $4, '2026-11-20', 'standing', 'pocket', 1)",
        [yard.nurseryId, newId(), lot.lot, newId()],
      ),
    ).rejects.toThrow(/movement_accounts/);
  });
});

describe('taking a record back', () => {
  it('reverses its movements and strikes its observation, keeping both', async () => {
    const id = newId();
    await yard.owner.ok('liftLot', lift(60, 5, id));
    const detail = await yard.owner.ok('undoEntry', {
      params: { ...lot, entry: id },
      body: { id: newId(), on: '2026-11-24' },
    });
    expect(detail.lot.held).toMatchObject({ standing: 80, lifted: 0, out: 0 });
    const moves = detail.evidence.movements;
    expect(moves.filter((m) => m.entry === id)).toHaveLength(2);
    expect(moves.filter((m) => m.reverses !== null)).toHaveLength(2);
    expect(detail.journal.map((entry) => entry.act)).toEqual(['take back', 'lift', 'count', 'sow']);
  });
  it('works once, even when asked twice at once', async () => {
    const id = newId();
    await yard.owner.ok('liftLot', lift(60, 0, id));
    const undo = () =>
      yard.owner.send('undoEntry', {
        params: { ...lot, entry: id },
        body: { id: newId(), on: '2026-11-24' },
      });
    const both = await Promise.all([undo(), undo()]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    expect((await heldNow()).standing).toBe(80);
  });
  it('is refused where the trees have gone on meanwhile', async () => {
    const { evidence } = await yard.owner.ok('lot', { params: lot });
    await yard.owner.ok('liftLot', lift(50));
    const problem = await yard.owner.refused('undoEntry', {
      params: { ...lot, entry: evidence.counts[0].entry },
      body: { id: newId(), on: '2026-11-24' },
    });
    expect(problem).toMatchObject({ status: 409, type: '/problems/not-enough' });
    // Nothing of it was half done: the count still stands.
    expect((await yard.owner.ok('lot', { params: lot })).evidence.counts).toHaveLength(1);
  });
  it('does not undo a sowing, nor what is not there', async () => {
    expect(
      (
        await yard.owner.refused('undoEntry', {
          params: { ...lot, entry: lot.lot },
          body: { id: newId(), on: '2026-11-24' },
        })
      ).status,
    ).toBe(422);
    expect(
      (
        await yard.owner.refused('undoEntry', {
          params: { ...lot, entry: newId() },
          body: { id: newId(), on: '2026-11-24' },
        })
      ).status,
    ).toBe(404);
  });
});
