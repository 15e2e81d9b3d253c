import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let visitor: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
});
afterAll(() => server.close());

type Order = BodyInputOf<'addOrders'>['orders'][number];
const line = (more: Partial<Order['lines'][number]> = {}): Order['lines'][number] => ({
  id: newId(),
  speciesId: yard.speciesId('ALN'),
  provenance: '',
  form: 'plug',
  fromCm: 20,
  toCm: 40,
  count: 200,
  sent: 0,
  on: '2027-03-10',
  until: '2027-04-10',
  goesTo: 'wet',
  price: 0.8,
  state: 'promised',
  ...more,
});
const order = (more: Partial<Order> = {}): Order => ({
  id: newId(),
  buyer: 'Low Wood estate',
  reach: 'by post',
  note: '',
  lines: [line()],
  ...more,
});
const add = (...orders: Order[]) => ({ params: yard.nursery, body: { id: newId(), orders } });
const at = (id: string) => ({ ...yard.nursery, order: id });

describe('orders', () => {
  it('are taken once however often they are sent, changed by version, and taken out', async () => {
    const one = order();
    const write = add(one);
    await yard.owner.ok('addOrders', write);
    const again = await yard.owner.ok('addOrders', write);
    expect(again.orders.filter(({ id }) => id === one.id)).toHaveLength(1);
    expect((await visitor.ok('orders', { params: yard.nursery })).orders).toHaveLength(1);
    const { id, ...values } = one;
    const sent = {
      ...values,
      lines: [{ ...one.lines[0], sent: 80, state: 'part sent' as const }],
      version: 1,
    };
    const kept = await yard.owner.ok('editOrder', { params: at(id), body: sent });
    expect(kept).toMatchObject({ version: 2, lines: [{ sent: 80, state: 'part sent' }] });
    const stale = await yard.owner.send('editOrder', { params: at(id), body: { ...sent, buyer: 'Another' } });
    expect(stale.status).toBe(409);
    expect((await yard.owner.send('removeOrder', { params: at(id), body: { version: 1 } })).status).toBe(409);
    const left = await yard.owner.ok('removeOrder', { params: at(id), body: { version: 2 } });
    expect(left.orders).toEqual([]);
  });
  it('come back as they were when taken out, with lines whose day has gone by', async () => {
    const past = line({ on: '2020-01-01', until: '2020-02-01', state: 'sent', sent: 200 });
    const one = order({ lines: [past] });
    await yard.owner.ok('addOrders', add(one));
    const overdue = { ...one, lines: [{ ...past, state: 'promised' as const, sent: 50 }] };
    const { id, ...values } = overdue;
    await yard.owner.ok('editOrder', { params: at(id), body: { ...values, version: 1 } });
    await yard.owner.ok('removeOrder', { params: at(id), body: { version: 2 } });
    const { orders } = await yard.owner.ok('addOrders', add(overdue));
    expect(orders.find((kept) => kept.id === id)?.lines).toEqual([{ ...overdue.lines[0], lots: [] }]);
  });
  it('have lots set against their lines, of their own species and nursery only', async () => {
    const mine = { id: yard.inBed.lot };
    const one = order({ lines: [line({ lots: [mine.id] })] });
    const { orders } = await yard.owner.ok('addOrders', add(one));
    expect(orders.find(({ id }) => id === one.id)!.lines[0].lots).toEqual([mine.id]);
    for (const lots of [[newId()], [mine.id, newId()]])
      expect((await yard.owner.refused('addOrders', add(order({ lines: [line({ lots })] })))).detail).toMatch(
        /of another species, or not in this nursery/,
      );
    const other = order({ lines: [line({ speciesId: yard.speciesId('BPE'), lots: [mine.id] })] });
    expect((await yard.owner.send('addOrders', add(other))).status).toBe(422);
  });
  it('may be read by a visitor and written by a grower alone', async () => {
    expect((await visitor.send('addOrders', add(order()))).status).toBe(403);
  });
  it('are taken all or none, and the one at fault is named', async () => {
    const before = (await yard.owner.ok('orders', { params: yard.nursery })).orders.length;
    const bad = order({ buyer: 'Gone by', lines: [line({ on: '2020-01-01', until: '2020-02-01' })] });
    const answer = await yard.owner.send('addOrders', add(order(), bad));
    expect(answer.status).toBe(422);
    expect(await answer.text()).toContain(
      'Order 2, Gone by: A line is wanted by 2020-02-01, which has gone by',
    );
    expect((await yard.owner.ok('orders', { params: yard.nursery })).orders).toHaveLength(before);
  });
  it.each([
    ['a species nobody grows here', { speciesId: newId() }, /not in this nursery’s list/],
    ['a window that ends before it begins', { on: '2027-05-01', until: '2027-04-01' }, /lies before the day/],
    ['a size that ends before it begins', { fromCm: 60, toCm: 40 }, /ends before it begins/],
    ['more sent than wanted', { sent: 900 }, /More were sent/],
    ['no trees', { count: 0 }, /Trees: a whole number/],
  ])('refuse %s with a sentence, and keep nothing', async (_, more, sentence) => {
    const one = order({ lines: [line(more)] });
    const answer = await yard.owner.send('addOrders', add(one));
    expect(answer.status).toBe(422);
    expect(await answer.text()).toMatch(sentence);
    const { orders } = await yard.owner.ok('orders', { params: yard.nursery });
    expect(orders.some(({ id }) => id === one.id)).toBe(false);
  });
  it('keep a line of the past that was there before, when another is changed', async () => {
    const past = line({ on: '2020-01-01', until: '2020-02-01', state: 'sent', sent: 200 });
    const one = order({ lines: [past] });
    await yard.owner.ok('addOrders', add(one));
    const { id, ...values } = one;
    const reopened = { ...values, lines: [{ ...past, state: 'promised' as const }, line()], version: 1 };
    expect((await yard.owner.ok('editOrder', { params: at(id), body: reopened })).lines).toHaveLength(2);
  });
});
