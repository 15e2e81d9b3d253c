import fc from 'fast-check';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
let other: Caller;
let visitor: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
  other = await addPerson(server, yard.nurseryId, 'other@testing.example', 'crew');
  visitor = await addPerson(server, yard.nurseryId, 'visitor@testing.example', 'visitor');
});
afterAll(() => server.close());

const on = '2026-11-20';
let sown = 0;
/** A bed lot all lifted into parcels of so many trees. */
async function lifted(counts: number[]): Promise<{ lot: string; parcels: string[] }> {
  const standing = counts.reduce((sum, n) => sum + n, 0);
  const at = await yard.sow(
    `SA-${++sown}`,
    { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.05 },
    standing,
  );
  const parcels = counts.map((count, i) => ({
    id: newId(),
    grade: '',
    fromCm: 40 + 20 * i,
    toCm: 60 + 20 * i,
    count,
    bundleOf: 25,
    place: 'Trench 1',
  }));
  await crew.ok('liftLot', { params: at, body: { id: newId(), on, lifted: standing, culled: 0, parcels } });
  return { lot: at.lot, parcels: parcels.map(({ id }) => id) };
}
type Line = BodyInputOf<'addOrders'>['orders'][number]['lines'][number];
async function order(count: number, more: Partial<Line> = {}) {
  const id = newId();
  const line: Line = {
    id: newId(),
    speciesId: yard.speciesId('ALN'),
    provenance: '',
    form: 'bare-root',
    fromCm: 40,
    toCm: 60,
    count,
    sent: 0,
    on: '2026-11-25',
    until: '2026-12-20',
    goesTo: '',
    price: null,
    state: 'promised',
    ...more,
  };
  const body = { id: newId(), orders: [{ id, buyer: 'Moor', reach: '', note: '', lines: [line] }] };
  await yard.owner.ok('addOrders', { params: yard.nursery, body });
  const now = async () =>
    (await visitor.ok('orders', { params: yard.nursery })).orders.find((o) => o.id === id)!;
  const change = async (to: Partial<Line>) => {
    const { version, buyer, reach, note, lines } = await now();
    const params = { ...yard.nursery, order: id };
    const changed = lines.map((one) => ({ ...one, ...to }));
    await yard.owner.ok('editOrder', { params, body: { version, buyer, reach, note, lines: changed } });
  };
  return { of: { id, lineId: line.id }, now, change };
}
type Part = { parcelId: string; count: number };
const aside = (of: { id: string; lineId: string }, parts: Part[]) => ({
  params: yard.nursery,
  body: { id: newId(), order: of, parts },
});
const send = (parts: Part[], of: { id: string; lineId: string } | null = null) => ({
  params: yard.nursery,
  body: { id: newId(), on, order: of, to: of ? '' : 'Somebody', note: '', parts },
});
const asides = async (of: { lineId: string }) =>
  (await visitor.ok('parcels', { params: yard.nursery })).asides
    .filter(({ lineId }) => lineId === of.lineId)
    .map(({ parcelId, count }) => ({ parcelId, count }));

describe('lifted trees are set aside for a line', () => {
  it('in place of what was before, and taken back by nothing', async () => {
    const { parcels } = await lifted([50, 30]);
    const { of } = await order(60);
    await crew.ok('setAside', aside(of, [{ parcelId: parcels[0], count: 50 }]));
    await crew.ok('setAside', aside(of, [{ parcelId: parcels[1], count: 20 }]));
    expect(await asides(of)).toEqual([{ parcelId: parcels[1], count: 20 }]);
    await crew.ok('setAside', aside(of, []));
    expect(await asides(of)).toEqual([]);
  });
  it('nobody else is sent them, nor are they planted or set aside twice', async () => {
    const { lot, parcels } = await lifted([50]);
    const [one, two] = [await order(40), await order(40)];
    await crew.ok('setAside', aside(one.of, [{ parcelId: parcels[0], count: 40 }]));
    const part = [{ parcelId: parcels[0], count: 11 }];
    for (const refused of [
      await crew.refused('setAside', aside(two.of, part)),
      await crew.refused('sendTrees', send(part)),
      await crew.refused('sendTrees', send(part, two.of)),
    ])
      expect(refused).toMatchObject({ status: 409, type: '/problems/set-aside' });
    await crew.ok('sendTrees', send([{ parcelId: parcels[0], count: 10 }]));
    const more = await crew.refused('sendTrees', send([{ parcelId: parcels[0], count: 41 }]));
    expect(more).toMatchObject({ status: 409 });
    const back = await crew.refused('splitLot', {
      params: { ...yard.nursery, lot },
      body: {
        id: newId(),
        lotId: newId(),
        code: 'SA-BACK',
        heightsCm: [],
        on,
        count: 5,
        from: 'lifted',
        parcelId: parcels[0],
        stage: { kind: 'bed', id: newId(), placeId: yard.bed.id, densityPerM2: 200, areaM2: 0.01 },
        note: '',
      },
    });
    expect(back).toMatchObject({ status: 409, type: '/problems/set-aside' });
  });
  it('sent for their line they are set aside no more, and taken back they are again', async () => {
    const { parcels } = await lifted([50, 30]);
    const { of, now } = await order(60);
    const all = [
      { parcelId: parcels[0], count: 40 },
      { parcelId: parcels[1], count: 20 },
    ];
    await crew.ok('setAside', aside(of, all));
    const first = send([{ parcelId: parcels[0], count: 30 }], of);
    await crew.ok('sendTrees', first);
    expect(await asides(of)).toEqual([
      { parcelId: parcels[0], count: 10 },
      { parcelId: parcels[1], count: 20 },
    ]);
    // From elsewhere: what is then more than the line wants is free again.
    const elsewhere = await lifted([25]);
    const second = send([{ parcelId: elsewhere.parcels[0], count: 25 }], of);
    await crew.ok('sendTrees', second);
    expect((await asides(of)).reduce((sum, { count }) => sum + count, 0)).toBe(5);
    for (const { body } of [second, first])
      await crew.ok('takeBackSending', {
        params: { ...yard.nursery, sending: body.id },
        body: { id: newId() },
      });
    expect((await now()).lines[0]).toMatchObject({ sent: 0, state: 'promised' });
    expect((await asides(of)).sort((a, b) => b.count - a.count)).toEqual(all);
  });
  it('a sending taken back sets aside no more than lies free since', async () => {
    const { parcels } = await lifted([30]);
    const elsewhere = await lifted([30]);
    const [one, two] = [await order(30), await order(30)];
    await crew.ok('setAside', aside(one.of, [{ parcelId: parcels[0], count: 30 }]));
    // Served from elsewhere, so that what was set aside is free, and taken for another, all but a few.
    const sent = send([{ parcelId: elsewhere.parcels[0], count: 30 }], one.of);
    await crew.ok('sendTrees', sent);
    expect(await asides(one.of)).toEqual([]);
    await crew.ok('setAside', aside(two.of, [{ parcelId: parcels[0], count: 26 }]));
    await crew.ok('takeBackSending', {
      params: { ...yard.nursery, sending: sent.body.id },
      body: { id: newId() },
    });
    expect(await asides(one.of)).toEqual([{ parcelId: parcels[0], count: 4 }]);
    expect(await asides(two.of)).toEqual([{ parcelId: parcels[0], count: 26 }]);
  });
  it('those that die give way, the last set aside first', async () => {
    const { lot, parcels } = await lifted([60]);
    const [one, two] = [await order(30), await order(30)];
    await crew.ok('setAside', aside(one.of, [{ parcelId: parcels[0], count: 30 }]));
    await crew.ok('setAside', aside(two.of, [{ parcelId: parcels[0], count: 20 }]));
    await crew.ok('writeOff', {
      params: { ...yard.nursery, lot },
      body: { id: newId(), on, from: 'lifted', cause: 'rot', count: 25, parcelId: parcels[0], note: '' },
    });
    expect(await asides(one.of)).toEqual([{ parcelId: parcels[0], count: 30 }]);
    expect(await asides(two.of)).toEqual([{ parcelId: parcels[0], count: 5 }]);
  });
  it('a line that wants fewer, falls through or is taken out gives them back', async () => {
    const { parcels } = await lifted([60]);
    const { of, change, now } = await order(40);
    const part = [{ parcelId: parcels[0], count: 40 }];
    await crew.ok('setAside', aside(of, part));
    await change({ count: 25 });
    expect(await asides(of)).toEqual([{ parcelId: parcels[0], count: 25 }]);
    await change({ state: 'fell through' });
    expect(await asides(of)).toEqual([]);
    expect(await crew.refused('setAside', aside(of, part))).toMatchObject({
      status: 422,
      detail: expect.stringContaining('closed'),
    });
    await change({ state: 'promised' });
    await crew.ok('setAside', aside(of, [{ parcelId: parcels[0], count: 25 }]));
    await yard.owner.ok('removeOrder', {
      params: { ...yard.nursery, order: of.id },
      body: { version: (await now()).version },
    });
    expect(await asides(of)).toEqual([]);
    await crew.ok('sendTrees', send([{ parcelId: parcels[0], count: 60 }]));
  });
  it('is refused for more than the line wants, another species, a parcel that is not there, and to a visitor', async () => {
    const { parcels } = await lifted([60]);
    const { of } = await order(40);
    const part = (count: number, parcelId = parcels[0]) => [{ parcelId, count }];
    expect(await crew.refused('setAside', aside(of, part(41)))).toMatchObject({ status: 422 });
    expect(await crew.refused('setAside', aside(of, part(1, newId())))).toMatchObject({ status: 404 });
    expect(await crew.refused('setAside', aside(of, [...part(1), ...part(1)]))).toMatchObject({
      status: 422,
    });
    const oaks = await order(40, { speciesId: yard.speciesId('QPE') });
    expect(await crew.refused('setAside', aside(oaks.of, part(5)))).toMatchObject({
      status: 422,
      detail: expect.stringContaining('another species'),
    });
    expect(await visitor.refused('setAside', aside(of, part(5)))).toMatchObject({ status: 403 });
    expect(await asides(of)).toEqual([]);
  });
  it('by two at once for two lines: no tree twice, and nothing hangs', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 30 })), {
          minLength: 2,
          maxLength: 4,
        }),
        async (asks) => {
          const { parcels } = await lifted([40, 40]);
          const lines = await Promise.all(asks.map(() => order(60)));
          const answers = await Promise.all(
            asks.map(([a, b], i) => {
              const parts = [
                { parcelId: parcels[0], count: a },
                { parcelId: parcels[1], count: b },
              ];
              const by = i % 2 ? crew : other;
              // Named in either order, and sent without a line by every third.
              const named = i % 2 ? parts : [...parts].reverse();
              return i % 3 === 2
                ? by.send('sendTrees', send(named))
                : by.send('setAside', aside(lines[i].of, named));
            }),
          );
          expect(answers.every(({ status }) => status === 200 || status === 409)).toBe(true);
          const { rows } = await server.owner.query<{ held: string; aside: string; sum: string }>(
            `select h.held, h.aside, coalesce((select sum(count) from parcel_aside a where a.parcel_id = h.parcel_id), 0) as sum
             from parcel_held h where h.parcel_id = any($1)`,
            [parcels],
          );
          expect(rows).toHaveLength(2);
          for (const row of rows) {
            expect(Number(row.aside)).toBe(Number(row.sum));
            expect(Number(row.aside)).toBeLessThanOrEqual(Number(row.held));
          }
        },
      ),
      { numRuns: 8 },
    );
  });
});

describe('where lifted trees lie is looked at', () => {
  const looked = (more: object = {}) => ({
    params: yard.nursery,
    body: { id: newId(), place: 'Trench 1', on, tempC: 3, seen: ['mould' as const], note: '', ...more },
  });
  it('what was seen is kept, told with the parcels, and taken back', async () => {
    const one = looked();
    await crew.ok('look', one);
    const { looks } = await visitor.ok('parcels', { params: yard.nursery });
    expect(looks.find(({ id }) => id === one.body.id)).toMatchObject({
      place: 'Trench 1',
      on,
      tempC: 3,
      seen: ['mould'],
    });
    const params = { ...yard.nursery, look: one.body.id };
    const after = await crew.ok('takeBackLook', { params, body: { id: newId() } });
    expect(after.looks.some(({ id }) => id === one.body.id)).toBe(false);
    expect(await crew.refused('takeBackLook', { params, body: { id: newId() } })).toMatchObject({
      status: 404,
    });
  });
  it('not on a day still to come, nor too warm to be true, nor by a visitor', async () => {
    expect(await crew.refused('look', looked({ on: '2027-11-20' }))).toMatchObject({ status: 422 });
    expect(await crew.refused('look', looked({ tempC: 80 }))).toMatchObject({ status: 422 });
    expect(await visitor.refused('look', looked())).toMatchObject({ status: 403 });
  });
});

describe('what papers say of the nursery', () => {
  it('is kept by a grower, and shown to everybody', async () => {
    const before = await visitor.ok('papers', { params: yard.nursery });
    const papers = { schema: 1 as const, fields: [{ name: 'Registration', value: 'UK-1234' }] };
    const body = { version: before.version, papers };
    await yard.owner.ok('setPapers', { params: yard.nursery, body });
    expect((await visitor.ok('papers', { params: yard.nursery })).papers).toEqual(papers);
    expect(await yard.owner.refused('setPapers', { params: yard.nursery, body })).toMatchObject({
      status: 409,
    });
    expect(await crew.refused('setPapers', { params: yard.nursery, body })).toMatchObject({ status: 403 });
  });
});
