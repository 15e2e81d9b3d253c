import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
let visitor: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@hold.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@hold.example', 'visitor');
});
afterAll(() => server.close());

let made = 0;
const lotOf = (standing = 40) =>
  yard.sow(
    `H-${++made}`,
    { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.1 },
    standing,
  );
const begin = (at: { nursery: string; lot: string }, on = '2026-08-01') => ({
  params: at,
  body: { id: newId(), on, cause: 'dug in summer' as const, cover: 'bag' as const, note: '' },
});
type What = BodyInputOf<'noteHold'>['what'];
const step = (hold: string, on: string, what: What) => ({
  params: { ...yard.nursery, hold },
  body: { id: newId(), on, what, note: '' },
});
const end = (hold: string, alive: number) => ({
  params: { ...yard.nursery, hold },
  body: { id: newId(), on: '2026-09-10', alive, note: '' },
});
const undo = (hold: string) => ({ params: { ...yard.nursery, hold }, body: { id: newId() } });
const standing = async (at: { nursery: string; lot: string }) =>
  (await visitor.ok('lot', { params: at })).lot.held.standing;

describe('a hold in humid air', () => {
  it('is opened only through its gate, a step a day, and ended with what came through', async () => {
    const at = await lotOf();
    const body = begin(at);
    const hold = body.body.id;
    await crew.ok('beginHold', body);
    await crew.ok('beginHold', body);
    expect((await crew.refused('noteHold', step(hold, '2026-08-05', 'opened'))).detail).toMatch(
      /two flushes/,
    );
    await crew.ok('noteHold', step(hold, '2026-08-09', 'flush'));
    await crew.ok('noteHold', step(hold, '2026-08-15', 'flush'));
    const opened = step(hold, '2026-08-16', 'opened');
    await crew.ok('noteHold', opened);
    expect((await crew.refused('noteHold', step(hold, '2026-08-16', 'opened'))).detail).toMatch(
      /One step a day/,
    );
    await crew.ok('takeBackHoldStep', {
      params: { ...yard.nursery, hold, step: opened.body.id },
      body: { id: newId() },
    });
    await crew.ok('noteHold', step(hold, '2026-08-16', 'opened'));
    const { holds } = await visitor.ok('holds', { params: yard.nursery });
    expect(holds.find(({ id }) => id === hold)!.steps.map(({ what }) => what)).toEqual([
      'flush',
      'flush',
      'opened',
    ]);
    expect((await crew.refused('endHold', end(hold, 41))).detail).toMatch(/only 40/);
    await crew.ok('endHold', end(hold, 31));
    expect(await standing(at)).toBe(31);
    expect((await crew.refused('noteHold', step(hold, '2026-09-11', 'wilted'))).detail).toMatch(/was ended/);
    await crew.ok('takeBackHold', undo(hold));
    expect(await standing(at)).toBe(40);
    await crew.ok('takeBackHold', undo(hold));
    expect((await visitor.ok('holds', { params: yard.nursery })).holds.some(({ id }) => id === hold)).toBe(
      false,
    );
  });
  it('is begun once by two at once, not where nothing stands, and not by a visitor', async () => {
    const at = await lotOf();
    const answers = await Promise.all([begin(at), begin(at)].map((one) => crew.send('beginHold', one)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    const none = await lotOf(0);
    expect((await crew.refused('beginHold', begin(none))).detail).toMatch(/Nothing of/);
    expect((await visitor.send('beginHold', begin(at))).status).toBe(403);
    expect((await crew.send('beginHold', begin(await lotOf(), '2031-01-01'))).status).toBe(422);
  });
});
