import fc from 'fast-check';
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
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
});
afterAll(() => server.close());

const on = '2026-11-20';
type Grade = NonNullable<BodyInputOf<'liftLot'>['parcels']>[number];
const grade = (count: number, more: Partial<Grade> = {}): Grade => ({
  id: newId(),
  grade: '40–60',
  fromCm: 40,
  toCm: 60,
  count,
  bundleOf: 25,
  place: 'Trench 1',
  ...more,
});
let sown = 0;
/** A bed lot of its own, with so many standing. */
const bedLot = (standing = 80) =>
  yard.sow(
    `P-${++sown}`,
    { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.05 },
    standing,
  );
const lift = (parcels: Grade[], culled = 0) => ({
  id: newId(),
  on,
  lifted: parcels.reduce((sum, { count }) => sum + count, 0),
  culled,
  parcels,
});
const lying = async (lotId: string) =>
  (await visitor.ok('parcels', { params: yard.nursery })).parcels.filter((p) => p.lotId === lotId);
const held = async (at: { lot: string }) => {
  const { rows } = await server.owner.query<{ account: string; held: string }>(
    'select account, held from balance where lot_id = $1',
    [at.lot],
  );
  return Object.fromEntries(rows.map((row) => [row.account, Number(row.held)]));
};
const order = async (count: number, more: object = {}) => {
  const id = newId();
  const lineId = newId();
  const line = {
    id: lineId,
    speciesId: yard.speciesId('ALN'),
    provenance: '',
    form: 'bare-root' as const,
    fromCm: 40,
    toCm: 60,
    count,
    sent: 0,
    on: '2026-11-25',
    until: '2026-12-20',
    goesTo: '',
    price: null,
    state: 'promised' as const,
    ...more,
  };
  await yard.owner.ok('addOrders', {
    params: yard.nursery,
    body: { id: newId(), orders: [{ id, buyer: 'Moor', reach: '', note: '', lines: [line] }] },
  });
  const now = async () =>
    (await visitor.ok('orders', { params: yard.nursery })).orders.find((o) => o.id === id)!.lines[0];
  return { id, lineId, now };
};
const sending = (
  parts: { parcelId: string; count: number }[],
  more: Partial<BodyInputOf<'sendTrees'>> = {},
) => ({
  params: yard.nursery,
  body: { id: newId(), on: '2026-11-22', order: null, to: 'Hill', parts, ...more },
});
const back = (
  id: string,
  parts: BodyInputOf<'bringBack'>['parts'],
  more: Partial<BodyInputOf<'bringBack'>> = {},
) => ({
  params: { ...yard.nursery, sending: id },
  body: {
    id: newId(),
    on: '2026-11-22',
    place: 'Shed',
    wantedAgain: true,
    cause: 'died' as const,
    note: 'dry',
    parts,
    ...more,
  },
});

describe('a lift', () => {
  it('becomes parcels by grade, which lie where they were put', async () => {
    const at = await bedLot();
    await crew.ok('liftLot', {
      params: at,
      body: lift([grade(50), grade(20, { grade: 'under 40', fromCm: null, toCm: 40, bundleOf: null })], 10),
    });
    const parcels = await lying(at.lot);
    expect(parcels.map(({ grade: g, held: h, count, form, place }) => [g, h, count, form, place])).toEqual([
      ['40–60', 50, 50, 'bare-root', 'Trench 1'],
      ['under 40', 20, 20, 'bare-root', 'Trench 1'],
    ]);
    await crew.ok('putParcel', {
      params: { ...yard.nursery, parcel: parcels[0].id },
      body: { id: newId(), place: 'Cold store' },
    });
    expect((await lying(at.lot))[0].place).toBe('Cold store');
  });
  it('that says no grades is one parcel: no tree is lost', async () => {
    const at = await bedLot();
    await crew.ok('liftLot', { params: at, body: { id: newId(), on, lifted: 33, culled: 0 } });
    expect(await lying(at.lot)).toMatchObject([{ grade: '', held: 33 }]);
  });
  it.each([
    ['whose grades do not add up', () => ({ ...lift([grade(30)]), lifted: 31 }), /do not add up/],
    ['whose grades overlap', () => lift([grade(30), grade(10, { fromCm: 50, toCm: 80 })]), /overlap/],
    ['whose grade ends below its beginning', () => lift([grade(30, { fromCm: 60, toCm: 40 })]), /ends above/],
  ])('%s is refused in a sentence', async (_, body, sentence) => {
    const at = await bedLot();
    const refused = await crew.send('liftLot', { params: at, body: body() });
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(sentence);
    expect(await lying(at.lot)).toEqual([]);
  });
  it('taken back leaves no parcel; with some of it sent, it cannot be', async () => {
    const at = await bedLot();
    const first = lift([grade(30)]);
    const second = lift([grade(40)]);
    await crew.ok('liftLot', { params: at, body: first });
    await crew.ok('liftLot', { params: at, body: second });
    const undo = (entry: string) => ({ params: { ...at, entry }, body: { id: newId(), on } });
    await crew.ok('undoEntry', undo(first.id));
    expect(await lying(at.lot)).toMatchObject([{ held: 40 }]);
    await crew.ok('sendTrees', sending([{ parcelId: second.parcels[0].id, count: 5 }]));
    const refused = await crew.send('undoEntry', undo(second.id));
    expect(refused.status).toBe(409);
    expect(await held(at)).toMatchObject({ standing: 40, lifted: 35, sent: 5 });
  });
  it('whose trees die in store gives them up from the parcel named, else from the first', async () => {
    const at = await bedLot();
    const body = lift([grade(30), grade(40, { grade: 'under 40', fromCm: null, toCm: 40 })]);
    await crew.ok('liftLot', { params: at, body });
    const gone = (count: number, parcelId: string | null = null) => ({
      params: at,
      body: { id: newId(), on, from: 'lifted' as const, cause: 'rot' as const, count, parcelId },
    });
    await crew.ok('writeOff', gone(6, body.parcels[1].id));
    await crew.ok('writeOff', gone(32));
    expect((await lying(at.lot)).map((p) => p.held)).toEqual([0, 32]);
    expect((await crew.send('writeOff', gone(33))).status).toBe(409);
    expect((await crew.send('writeOff', gone(1, body.parcels[0].id))).status).toBe(409);
  });
});

describe('a sending', () => {
  it('takes trees out of parcels and is written beside the line it serves; taken back, all is as it was', async () => {
    const at = await bedLot();
    const body = lift([grade(60)]);
    await crew.ok('liftLot', { params: at, body });
    const wanted = await order(70);
    const part = sending([{ parcelId: body.parcels[0].id, count: 45 }], {
      order: { id: wanted.id, lineId: wanted.lineId },
      to: '',
    });
    const { sendings } = await crew.ok('sendTrees', part);
    expect(sendings[0]).toMatchObject({ orderId: wanted.id, parts: [{ count: 45 }] });
    expect(await wanted.now()).toMatchObject({ sent: 45, state: 'part sent' });
    expect(await held(at)).toMatchObject({ standing: 20, lifted: 15, sent: 45 });
    // It may be of several lots: one of them alone does not take it back.
    const alone = { params: { ...at, entry: part.body.id }, body: { id: newId(), on } };
    expect((await crew.send('undoEntry', alone)).status).toBe(422);
    expect(await wanted.now()).toMatchObject({ sent: 45 });
    // Sent again by a shaky network it is taken once.
    await crew.ok('sendTrees', part);
    expect(await wanted.now()).toMatchObject({ sent: 45 });
    await crew.ok('takeBackSending', {
      params: { ...yard.nursery, sending: part.body.id },
      body: { id: newId() },
    });
    expect(await wanted.now()).toMatchObject({ sent: 0, state: 'promised' });
    expect(await held(at)).toMatchObject({ standing: 20, lifted: 60, sent: 0 });
    const again = { params: { ...yard.nursery, sending: part.body.id }, body: { id: newId() } };
    expect((await crew.send('takeBackSending', again)).status).toBe(404);
  });
  it('taken back gives a line the state it had before anything was sent for it', async () => {
    const at = await bedLot();
    const body = lift([grade(60)]);
    await crew.ok('liftLot', { params: at, body });
    const asked = await order(70, { state: 'asked' });
    const send = async (count: number) => {
      const one = sending([{ parcelId: body.parcels[0].id, count }], {
        order: { id: asked.id, lineId: asked.lineId },
      });
      await crew.ok('sendTrees', one);
      return one.body.id;
    };
    const takeBack = (id: string) =>
      crew.ok('takeBackSending', { params: { ...yard.nursery, sending: id }, body: { id: newId() } });
    const [first, second] = [await send(10), await send(20)];
    await takeBack(first);
    expect(await asked.now()).toMatchObject({ sent: 20, state: 'part sent' });
    await takeBack(second);
    expect(await asked.now()).toMatchObject({ sent: 0, state: 'asked' });
    const third = await send(5);
    await server.owner.query(
      `update tree_order set lines = jsonb_set(lines, '{0,state}', '"fell through"') where id = $1`,
      [asked.id],
    );
    await takeBack(third);
    expect(await asked.now()).toMatchObject({ sent: 0, state: 'fell through' });
  });
  it('by two people at once never sends a tree twice, nor more than a line wants', async () => {
    const at = await bedLot();
    const body = lift([grade(60)]);
    await crew.ok('liftLot', { params: at, body });
    const wanted = await order(50);
    const part = () =>
      sending([{ parcelId: body.parcels[0].id, count: 40 }], {
        order: { id: wanted.id, lineId: wanted.lineId },
      });
    const answers = await Promise.all([part(), part(), part()].map((one) => crew.send('sendTrees', one)));
    expect(answers.filter(({ ok }) => ok)).toHaveLength(1);
    expect(await wanted.now()).toMatchObject({ sent: 40 });
    const loose = () => sending([{ parcelId: body.parcels[0].id, count: 15 }]);
    const more = await Promise.all([loose(), loose()].map((one) => crew.send('sendTrees', one)));
    expect(more.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(await held(at)).toMatchObject({ lifted: 5, sent: 55 });
  });
  it.each([
    ['of more than the line wants', async () => await order(10), {}, /still wants 10/],
    [
      'for another species',
      async () => order(90, { speciesId: yard.speciesId('QPE') }),
      {},
      /another species/,
    ],
    ['for a line that fell through', async () => order(90, { state: 'fell through' }), {}, /fell through/],
    ['before it was lifted', async () => order(90), { on: '2026-11-18' }, /lies here since 2026-11-20/],
    ['still to come', async () => order(90), { on: '2027-01-18' }, /still to come/],
  ])('%s is refused in a sentence, and nothing leaves', async (_, make, more, sentence) => {
    const at = await bedLot();
    const body = lift([grade(60)]);
    await crew.ok('liftLot', { params: at, body });
    const { id, lineId } = await make();
    const refused = await crew.send(
      'sendTrees',
      sending([{ parcelId: body.parcels[0].id, count: 20 }], { order: { id, lineId }, ...more }),
    );
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(sentence);
    expect(await held(at)).toMatchObject({ lifted: 60 });
  });
  it('is not for visitors, and knows no parcel of another nursery', async () => {
    const none = sending([{ parcelId: newId(), count: 1 }]);
    expect((await visitor.send('sendTrees', none)).status).toBe(403);
    expect((await crew.send('sendTrees', none)).status).toBe(404);
    const nobody = await crew.send('sendTrees', sending([{ parcelId: newId(), count: 1 }], { to: '' }));
    expect(await nobody.text()).toMatch(/Say who gets them/);
  });
});

describe('trees that come back', () => {
  const sendingOf = async (id: string) =>
    (await visitor.ok('parcels', { params: yard.nursery })).sendings.find((one) => one.id === id)!;
  /** A parcel of 50, of which 40 went to a line that wanted 60. */
  async function sentFor(more: object = {}) {
    const at = await bedLot();
    const parcel = grade(50);
    await crew.ok('liftLot', { params: at, body: lift([parcel]) });
    const line = await order(60, more);
    const sent = sending([{ parcelId: parcel.id, count: 40 }], {
      order: { id: line.id, lineId: line.lineId },
      to: '',
    });
    await crew.ok('sendTrees', sent);
    return { at, parcel, line, id: sent.body.id };
  }

  it('lie as a parcel of their own, the dead are out, and the line wants them again; taken back, all is as it was', async () => {
    const { at, parcel, line, id } = await sentFor();
    const wrote = back(id, [{ parcelId: parcel.id, count: 12, dead: 5 }]);
    await crew.ok('bringBack', wrote);
    expect(await held(at)).toMatchObject({ lifted: 17, sent: 28, 'out:died': 5 });
    const now = await lying(at.lot);
    expect(now.map(({ id: _, entry: __, ...one }) => one)).toMatchObject([
      { held: 10, cameBack: false, place: 'Trench 1' },
      { held: 7, count: 12, cameBack: true, place: 'Shed', grade: '40–60', since: on },
    ]);
    expect(await line.now()).toMatchObject({ sent: 28, count: 60, state: 'part sent' });
    const [returned] = (await sendingOf(id)).returns;
    expect(returned).toMatchObject({
      on: '2026-11-22',
      wantedAgain: true,
      note: 'dry',
      parts: [{ parcelId: parcel.id, lotId: at.lot, count: 12, dead: 5 }],
    });
    expect(returned.parts[0].intoId).toBe(now[1].id);

    const early = await crew.refused('takeBackSending', {
      params: { ...yard.nursery, sending: id },
      body: { id: newId() },
    });
    expect(early).toMatchObject({ status: 409, type: '/problems/came-back' });
    const params = { ...yard.nursery, sending: id, returned: returned.id };
    await crew.ok('takeBackReturn', { params, body: { id: newId() } });
    expect(await held(at)).toMatchObject({ lifted: 10, sent: 40, 'out:died': 0 });
    expect((await lying(at.lot)).map((p) => p.held)).toEqual([10]);
    expect(await line.now()).toMatchObject({ sent: 40, count: 60, state: 'part sent' });
    expect((await sendingOf(id)).returns).toEqual([]);
    expect((await crew.send('takeBackReturn', { params, body: { id: newId() } })).status).toBe(404);
    await crew.ok('takeBackSending', { params: { ...yard.nursery, sending: id }, body: { id: newId() } });
    expect(await line.now()).toMatchObject({ sent: 0, state: 'promised' });
  });

  it('and are not wanted again lower the line; where nothing of it is left, it falls through', async () => {
    const some = await sentFor();
    await crew.ok(
      'bringBack',
      back(some.id, [{ parcelId: some.parcel.id, count: 10, dead: 0 }], { wantedAgain: false }),
    );
    expect(await some.line.now()).toMatchObject({ sent: 30, count: 50, state: 'part sent' });
    const [{ id: first }] = (await sendingOf(some.id)).returns;
    await crew.ok('takeBackReturn', {
      params: { ...yard.nursery, sending: some.id, returned: first },
      body: { id: newId() },
    });
    expect(await some.line.now()).toMatchObject({ sent: 40, count: 60 });

    const at = await bedLot();
    const parcel = grade(40);
    await crew.ok('liftLot', { params: at, body: lift([parcel]) });
    const line = await order(40);
    const all = sending([{ parcelId: parcel.id, count: 40 }], {
      order: { id: line.id, lineId: line.lineId },
      to: '',
    });
    await crew.ok('sendTrees', all);
    expect(await line.now()).toMatchObject({ state: 'sent' });
    await crew.ok(
      'bringBack',
      back(all.body.id, [{ parcelId: parcel.id, count: 40, dead: 40 }], { wantedAgain: false }),
    );
    expect(await line.now()).toMatchObject({ sent: 0, count: 40, state: 'fell through' });
    const [{ id: second }] = (await sendingOf(all.body.id)).returns;
    await crew.ok('takeBackReturn', {
      params: { ...yard.nursery, sending: all.body.id, returned: second },
      body: { id: newId() },
    });
    expect(await line.now()).toMatchObject({ sent: 40, count: 40, state: 'sent' });
  });

  it('are never more than are still out, by two people at once neither; nor before they were sent', async () => {
    const { at, parcel, id } = await sentFor();
    const early = await crew.refused(
      'bringBack',
      back(id, [{ parcelId: parcel.id, count: 1, dead: 0 }], { on: '2026-11-21' }),
    );
    expect(early).toMatchObject({ status: 422, detail: expect.stringMatching(/sent on 2026-11-22/) });
    const dead = await crew.send('bringBack', back(id, [{ parcelId: parcel.id, count: 1, dead: 2 }]));
    expect(await dead.text()).toMatch(/More dead than came back/);
    expect((await crew.send('bringBack', back(id, [{ parcelId: newId(), count: 1, dead: 0 }]))).status).toBe(
      404,
    );
    const both = await Promise.all(
      [crew, yard.owner].map((by) =>
        by.send('bringBack', back(id, [{ parcelId: parcel.id, count: 30, dead: 0 }])),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(await held(at)).toMatchObject({ lifted: 40, sent: 10 });
    expect(
      (await visitor.send('bringBack', back(id, [{ parcelId: parcel.id, count: 1, dead: 0 }]))).status,
    ).toBe(403);
  });

  it('stay where they are once they left again, and once others were sent for them', async () => {
    const { at, parcel, line, id } = await sentFor();
    await crew.ok('bringBack', back(id, [{ parcelId: parcel.id, count: 12, dead: 0 }]));
    const [{ id: returned, parts }] = (await sendingOf(id)).returns;
    const again = sending([{ parcelId: parts[0].intoId, count: 3 }]);
    await crew.ok('sendTrees', again);
    const early = await crew.refused(
      'sendTrees',
      sending([{ parcelId: parts[0].intoId, count: 1 }], { on: '2026-11-21' }),
    );
    expect(early.detail).toMatch(/lies here since 2026-11-22: it cannot leave before that/);
    const undo = { params: { ...yard.nursery, sending: id, returned }, body: { id: newId() } };
    expect((await crew.refused('takeBackReturn', undo)).status).toBe(409);
    await crew.ok('takeBackSending', {
      params: { ...yard.nursery, sending: again.body.id },
      body: { id: newId() },
    });
    // Ten lie in the trench, and more are lifted: the line gets all it wants, so that the twelve cannot be out as well.
    const other = grade(30);
    await crew.ok('liftLot', { params: at, body: lift([other]) });
    const rest = sending([{ parcelId: other.id, count: 30 }], {
      order: { id: line.id, lineId: line.lineId },
      to: '',
    });
    await crew.ok('sendTrees', rest);
    const since = await crew.refused('takeBackReturn', { ...undo, body: { id: newId() } });
    expect(since).toMatchObject({ status: 409, type: '/problems/sent-since' });
    const record = await crew.refused('undoEntry', {
      params: { ...at, entry: returned },
      body: { id: newId(), on: '2026-11-22' },
    });
    expect(record).toMatchObject({ status: 422, type: '/problems/not-undone' });
  });
});

it('however trees are lifted, sent, lost and taken back by three at once, none is made and none is lost', async () => {
  const act = fc.record({
    who: fc.integer({ min: 0, max: 2 }),
    what: fc.constantFrom('lift', 'send', 'back', 'lose', 'undo'),
    count: fc.integer({ min: 1, max: 30 }),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 12 }), async (acts) => {
      const at = await bedLot();
      const people = [crew, yard.owner, crew];
      const entries: string[] = [];
      const sent: { id: string; parcelId: string }[] = [];
      const one = async ({ who, what, count }: (typeof acts)[number]) => {
        const by = people[who];
        const [parcel] = await lying(at.lot);
        if (what === 'lift' || !parcel) {
          const body = lift([grade(count)]);
          entries.push(body.id);
          await by.send('liftLot', { params: at, body });
        } else if (what === 'send') {
          const body = sending([{ parcelId: parcel.id, count }]);
          sent.push({ id: body.body.id, parcelId: parcel.id });
          await by.send('sendTrees', body);
        } else if (what === 'back' && sent.length) {
          const { id, parcelId } = sent[count % sent.length];
          await by.send('bringBack', back(id, [{ parcelId, count, dead: count >> 1 }]));
        }
        if (what === 'lose')
          await by.send('writeOff', {
            params: at,
            body: { id: newId(), on, from: 'lifted', cause: 'died', count },
          });
        if (what === 'undo' && entries.length)
          await by.send('undoEntry', {
            params: { ...at, entry: entries[count % entries.length] },
            body: { id: newId(), on },
          });
      };
      for (let i = 0; i < acts.length; i += 3) await Promise.all(acts.slice(i, i + 3).map(one));
      const now = await held(at);
      const all = Object.values(now).reduce((sum, n) => sum + n, 0);
      expect(all).toBe(100);
      expect(Object.values(now).every((n) => n >= 0)).toBe(true);
      const inParcels = (await lying(at.lot)).reduce((sum, p) => sum + p.held, 0);
      expect(inParcels).toBe(now.lifted ?? 0);
    }),
    { numRuns: 8 },
  );
});
