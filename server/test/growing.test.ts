import sharp from 'sharp';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, benchPlace, openTestServer, setUpLots, type Caller, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
let crew: Caller;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  crew = await addPerson(server, yard.nurseryId, 'crew@testing.example', 'crew');
});
afterAll(() => server.close());

const standing = async (lot: string) =>
  (await crew.ok('lot', { params: { ...yard.nursery, lot } })).lot.held.standing;
const event = (lots: { lotId: string; hit: number; dead: number }[], more: object = {}) => ({
  params: yard.nursery,
  body: {
    id: newId(),
    on: '2026-08-01',
    what: 'browsing' as const,
    lots: lots.map((l) => ({ id: newId(), ...l })),
    ...more,
  },
});

describe('what befalls lots', () => {
  it('is counted lot by lot, the dead out of the ledger by their cause, and taken back lot by lot', async () => {
    const [a, b] = [yard.inBed.lot, yard.onBench.lot];
    const before = [await standing(a), await standing(b)];
    const asked = event(
      [
        { lotId: a, hit: 30, dead: 10 },
        { lotId: b, hit: 5, dead: 0 },
      ],
      { patch: 'north end', note: 'Deer through the fence' },
    );
    const { lots } = await crew.ok('recordEvent', asked);
    expect(await standing(a)).toBe(before[0] - 10);
    expect(await standing(b)).toBe(before[1]);
    const mine = lots.find((l) => l.lot.id === a)!;
    expect(mine.evidence.events).toMatchObject([
      { what: 'browsing', hit: 30, dead: 10, patch: 'north end', note: 'Deer through the fence' },
    ]);
    expect(mine.evidence.movements.at(-1)).toMatchObject({ from: 'standing', to: 'out:browsed', count: 10 });
    const entry = asked.body.lots.find((l) => l.lotId === a)!.id;
    await crew.ok('undoEntry', {
      params: { ...yard.nursery, lot: a, entry },
      body: { id: newId(), on: '2026-08-02' },
    });
    expect(await standing(a)).toBe(before[0]);
    const left = (await crew.ok('lot', { params: yard.onBench })).evidence.events;
    expect(left).toHaveLength(1);
  });
  it('is taken back from every lot at once, or from none', async () => {
    const [a, b] = [yard.inBed.lot, yard.onBench.lot];
    const before = [await standing(a), await standing(b)];
    const asked = event([
      { lotId: a, hit: 6, dead: 4 },
      { lotId: b, hit: 5, dead: 3 },
    ]);
    await crew.ok('recordEvent', asked);
    const entries = asked.body.lots.map((part) => ({ lot: part.lotId, entry: part.id }));
    const undo = (parts: typeof entries) => ({
      params: yard.nursery,
      body: { id: newId(), on: '2026-08-03', entries: parts },
    });
    const odd = await crew.refused('undoTogether', undo([entries[0], { ...entries[1], entry: newId() }]));
    expect(odd.detail).toMatch(/Nothing was taken back/);
    expect(await standing(a)).toBe(before[0] - 4);
    const { lots } = await crew.ok('undoTogether', undo(entries));
    expect(lots).toHaveLength(2);
    expect([await standing(a), await standing(b)]).toEqual(before);
    expect(lots.flatMap((l) => l.evidence.events.filter((e) => e.entry === asked.body.lots[0].id))).toEqual(
      [],
    );
    expect((await crew.refused('undoTogether', undo(entries))).status).toBe(404);
  });
  it('is refused whole when one lot has fewer than were hit', async () => {
    const [a, b] = [yard.inBed.lot, yard.onBench.lot];
    const before = await standing(a);
    const problem = await crew.refused(
      'recordEvent',
      event([
        { lotId: a, hit: 3, dead: 3 },
        { lotId: b, hit: 5000, dead: 0 },
      ]),
    );
    expect(problem.detail).toMatch(/5000 hit, but \d+ of TRAY-1 stand\. Nothing was recorded\./);
    expect(await standing(a)).toBe(before);
  });
  it.each([
    ['more dead than hit', { lots: [{ hit: 2, dead: 3 }] }, /No more can have died/],
    ['deaths in a recovery', { what: 'recovery', lots: [{ hit: 2, dead: 1 }] }, /What recovers does not die/],
    ['a day to come', { on: '2027-01-01', lots: [{ hit: 2, dead: 1 }] }, /still to come/],
    ['a day before sowing', { on: '2026-01-01', lots: [{ hit: 2, dead: 1 }] }, /was sown on/],
    ['no lot', { lots: [] }, /at least one lot/],
    ['a photo that never came', { photos: [newId()], lots: [{ hit: 2, dead: 1 }] }, /photo did not arrive/],
  ])('refuses %s in a sentence', async (_, more, sentence) => {
    const lots = (more as { lots: { hit: number; dead: number }[] }).lots.map((l) => ({
      id: newId(),
      lotId: yard.inBed.lot,
      ...l,
    }));
    const asked = event([], { ...more, lots });
    expect((await crew.refused('recordEvent', asked)).detail).toMatch(sentence);
  });
  it('does not take a lot twice, and answers a retry with the first answer', async () => {
    const twice = event([
      { lotId: yard.inBed.lot, hit: 1, dead: 0 },
      { lotId: yard.inBed.lot, hit: 1, dead: 0 },
    ]);
    expect((await crew.refused('recordEvent', twice)).detail).toMatch(/named twice/);
    const asked = event([{ lotId: yard.inBed.lot, hit: 4, dead: 1 }]);
    const before = await standing(yard.inBed.lot);
    await crew.ok('recordEvent', asked);
    await crew.ok('recordEvent', asked);
    expect(await standing(yard.inBed.lot)).toBe(before - 1);
  });
  it('lets two people record on the same beds at once, in either order', async () => {
    const [a, b] = [yard.inBed.lot, yard.onBench.lot];
    const before = await standing(a);
    const one = { lotId: a, hit: 1, dead: 1 };
    const two = { lotId: b, hit: 1, dead: 1 };
    await Promise.all([
      crew.ok('recordEvent', event([one, two])),
      yard.owner.ok('recordEvent', event([two, one])),
      crew.ok('recordEvent', event([two, one])),
    ]);
    expect(await standing(a)).toBe(before - 3);
  });
});

describe('work done to lots', () => {
  const care = (done: object, lotId: string) => ({
    params: yard.nursery,
    body: { id: newId(), on: '2026-07-01', done, lots: [{ id: newId(), lotId }] } as never,
  });
  it('is kept as it was done, and taken back', async () => {
    const asked = care({ what: 'feed', ratedMonths: 5, gramsPerLitre: 3 }, yard.onBench.lot);
    const { lots } = await crew.ok('recordCare', asked);
    expect(lots[0].evidence.care).toMatchObject([
      { done: { what: 'feed', ratedMonths: 5, gramsPerLitre: 3 } },
    ]);
    const entry = (asked.body as { lots: { id: string }[] }).lots[0].id;
    const undone = await crew.ok('undoEntry', {
      params: { ...yard.onBench, entry },
      body: { id: newId(), on: '2026-07-02' },
    });
    expect(undone.evidence.care).toEqual([]);
  });
  it('spreads cells, not beds, and stakes no more than stand', async () => {
    expect(
      (await crew.refused('recordCare', care({ what: 'spread', apart: 2 }, yard.inBed.lot))).detail,
    ).toMatch(/no cells to set apart/);
    const many = care({ what: 'stake', stake: 'flexible', staked: 9999 }, yard.inBed.lot);
    expect((await crew.refused('recordCare', many)).detail).toMatch(/9999 staked, but/);
    const { lots } = await crew.ok('recordCare', care({ what: 'spread', apart: 2 }, yard.onBench.lot));
    expect(lots[0].evidence.care.at(-1)!.done).toEqual({ what: 'spread', apart: 2 });
    // Taken back, nothing of it is left that its room could be reckoned from.
    const entry = lots[0].evidence.care.at(-1)!.entry;
    const undone = await crew.ok('undoEntry', {
      params: { ...yard.onBench, entry },
      body: { id: newId(), on: '2026-08-02' },
    });
    expect(undone.evidence.care.map(({ done }) => done.what)).not.toContain('spread');
  });
});

describe('photos', () => {
  const picture = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: { r: 60, g: 120, b: 60 } } });
  const put = (id: string, body: Uint8Array, as = crew, type = 'image/jpeg') =>
    as.send(
      'keepPhoto',
      { params: { ...yard.nursery, photo: id } },
      {
        body: body as RequestInit['body'],
        headers: { 'content-type': type },
      },
    );

  it('are made small, turned upright, and keep nothing of where they were taken', async () => {
    const sent = await picture(2400, 1200)
      .jpeg()
      .withExif({
        IFD0: { Make: 'A camera' },
        IFD3: {
          GPSLatitudeRef: 'N',
          GPSLatitude: '54/1 36/1 0/1',
          GPSLongitudeRef: 'W',
          GPSLongitude: '2/1 24/1 0/1',
        },
      })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    expect((await sharp(sent).metadata()).exif).toBeDefined();
    const id = newId();
    const kept = await (await put(id, sent)).json();
    // Lying on its side, it stands upright once kept.
    expect(kept).toMatchObject({ id, widthPx: 800, heightPx: 1600 });
    const got = await crew.send('photo', { params: { ...yard.nursery, photo: id } });
    expect(got.headers.get('content-type')).toBe('image/jpeg');
    const bytes = Buffer.from(await got.arrayBuffer());
    const meta = await sharp(bytes).metadata();
    expect(meta.exif).toBeUndefined();
    expect(meta.orientation).toBeUndefined();
    expect(bytes.includes('A camera')).toBe(false);
    // Sent again it is the same photo; another under its id is refused.
    expect((await put(id, sent)).status).toBe(200);
    const other = await picture(20, 20).jpeg().toBuffer();
    expect((await put(id, other)).status).toBe(409);
    const { lots } = await crew.ok(
      'recordEvent',
      event([{ lotId: yard.inBed.lot, hit: 1, dead: 0 }], { photos: [id] }),
    );
    expect(lots[0].evidence.events.at(-1)!.photos).toEqual([id]);
  });
  it('are judged by what is in them: a text named .jpg, half a picture and one of 65 million points are refused', async () => {
    const answers = [
      await put(newId(), new TextEncoder().encode('<script>not a photo</script>')),
      await put(newId(), (await picture(400, 400).jpeg().toBuffer()).subarray(0, 300)),
      await put(newId(), await picture(8200, 8000).png().toBuffer(), crew, 'image/png'),
      await put(
        newId(),
        new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      ),
    ];
    const sentences = await Promise.all(
      answers.map(async (a) => ((await a.json()) as { detail: string }).detail),
    );
    expect(answers.map((a) => a.status)).toEqual([422, 422, 422, 422]);
    expect(sentences[0]).toMatch(/not a photo Kauri can read/);
    expect(sentences[2]).toMatch(/64 million/);
  });
  it('belong to one nursery, and are not for visitors to add', async () => {
    const id = newId();
    await put(id, await picture(30, 30).jpeg().toBuffer());
    const visitor = await addPerson(server, yard.nurseryId, 'look@testing.example', 'visitor');
    expect((await visitor.send('photo', { params: { ...yard.nursery, photo: id } })).status).toBe(200);
    expect((await put(newId(), await picture(30, 30).jpeg().toBuffer(), visitor)).status).toBe(403);
    expect((await server.visitor().send('photo', { params: { ...yard.nursery, photo: id } })).status).toBe(
      401,
    );
    expect((await crew.send('photo', { params: { nursery: newId(), photo: id } })).status).toBe(404);
  });
});

describe('lots carried together', () => {
  const carry = (lots: string[], placeId: string, more: object = {}) => ({
    params: yard.nursery,
    body: {
      id: newId(),
      on: '2026-09-10',
      note: '',
      placeId,
      lots: lots.map((lotId) => ({ id: newId(), stageId: newId(), lotId })),
      ...more,
    },
  });
  const stageOf = async (lot: string) =>
    (await crew.ok('lot', { params: { ...yard.nursery, lot } })).lot.stage;
  const tray = () => ({
    kind: 'container' as const,
    id: newId(),
    placeId: yard.bench.id,
    containerTypeId: yard.catalogue.containers[0].id,
    trays: 1,
  });
  let there: string;
  beforeAll(async () => {
    const beyond = await yard.owner.ok('addPlace', {
      params: yard.nursery,
      body: { id: newId(), place: benchPlace('Bench beyond') },
    });
    there = beyond.id;
  });

  it('stand in their trays in the other place, and back again, all at once', async () => {
    const lots = [(await yard.sow('CARRY-1', tray(), 20)).lot, (await yard.sow('CARRY-2', tray(), 20)).lot];
    const before = await Promise.all(lots.map(stageOf));
    const asked = carry(lots, there);
    const { lots: moved } = await crew.ok('carryLots', asked);
    for (const { lot } of moved)
      expect(lot.stage).toMatchObject({ placeId: there, trays: 1, startedOn: '2026-09-10' });
    expect((await crew.ok('carryLots', asked)).lots[0].evidence.stages).toHaveLength(2);
    await crew.ok('undoTogether', {
      params: yard.nursery,
      body: {
        id: newId(),
        on: '2026-09-11',
        entries: asked.body.lots.map(({ id, lotId }) => ({ lot: lotId, entry: id })),
      },
    });
    expect(await Promise.all(lots.map(stageOf))).toEqual(before);
  });

  it('are all left where they are when one cannot go', async () => {
    const lot = (await yard.sow('CARRY-3', tray(), 20)).lot;
    const before = await stageOf(lot);
    expect((await crew.refused('carryLots', carry([lot, yard.inBed.lot], there))).detail).toMatch(
      /stands in a bed and cannot be carried/,
    );
    expect((await crew.refused('carryLots', carry([lot], yard.bench.id))).detail).toMatch(/there already/);
    expect((await crew.refused('carryLots', carry([lot], yard.bed.id))).detail).toMatch(/trays need a bench/);
    expect((await crew.refused('carryLots', carry([lot], there, { on: '2026-04-01' }))).status).toBe(422);
    expect(await stageOf(lot)).toEqual(before);
  });
});
