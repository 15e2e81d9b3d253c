import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, Caller, openTestServer, setUp, setUpLots, type TestServer } from './harness';

let server: TestServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
beforeAll(async () => {
  server = await openTestServer();
  yard = await setUpLots(server);
  await yard.owner.ok('pullRoots', {
    params: yard.onBench,
    body: { id: newId(), on: '2026-11-01', scores: [4, 4, 4], spoiled: 0 },
  });
});
afterAll(() => server.close());

/** What is refused, to somebody whose browser asks for a language. */
async function refusedIn(language: string, asks: Caller, count = 500) {
  const answer = await asks.send(
    'countEmergence',
    {
      params: yard.inBed,
      body: { id: newId(), on: '2026-11-24', counted: count, cause: null },
    },
    { headers: { 'accept-language': language } },
  );
  expect(answer.status).toBe(422);
  return ((await answer.json()) as { detail: string }).detail;
}

describe('what a server answers', () => {
  it('is in the caller’s language, refusals by the core and by the contract as well', async () => {
    const { owner } = yard;
    expect(await refusedIn('en-GB', owner)).toMatch(/^500 counted, but only \d+ seeds of this lot/);
    expect(await refusedIn('es', owner)).toMatch(/^500 contadas, pero solo \d+ semillas de este lote/);
    expect(await refusedIn('de-AT,de;q=0.9', owner)).toMatch(
      /^500 gezählt, aber nur \d+ Samen dieser Partie/,
    );
    expect(await refusedIn('es', owner, -1)).toMatch(/^Plántulas contadas: un número entero de 0 a/);
    // A tongue there is no file of.
    expect(await refusedIn('fi', owner)).toMatch(/^500 counted/);
  });

  it('never mixes two callers who ask at once', async () => {
    const tongues = Array.from({ length: 40 }, (_, at) => (['en-GB', 'es', 'de'] as const)[at % 3]);
    const said = await Promise.all(tongues.map((tongue) => refusedIn(tongue, yard.owner)));
    const verbs = { 'en-GB': 'counted', es: 'contadas', de: 'gezählt' };
    expect(said.map((text) => text.split(/[ ,]+/)[1])).toEqual(tongues.map((tongue) => verbs[tongue]));
  });
});

describe('what a server works out by itself', () => {
  it('is in the nursery’s language, which its owner sets', async () => {
    const { owner, nursery, nurseryId } = yard;
    const before = await owner.today(nursery);
    expect(before.acts.map((act) => act.title)).toContain('Move TRAY-1 on');
    const grower = await addPerson(server, nurseryId, 'grower@testing.example', 'grower');
    expect((await grower.refused('setLanguage', { params: nursery, body: { language: 'es' } })).status).toBe(
      403,
    );
    expect(
      (await owner.refused('setLanguage', { params: nursery, body: { language: 'Spanish' } })).status,
    ).toBe(422);
    await owner.ok('setLanguage', { params: nursery, body: { language: 'es' } });
    expect((await owner.ok('me'))!.memberships[0].language).toBe('es');
    const after = await owner.today(nursery);
    expect(after.acts.map((act) => act.title)).toContain('Trasplantar TRAY-1');
    // The same acts in the same order, only said otherwise.
    expect(after.acts.map(({ rule, subjectId, by, loss }) => ({ rule, subjectId, by, loss }))).toEqual(
      before.acts.map(({ rule, subjectId, by, loss }) => ({ rule, subjectId, by, loss })),
    );
    const { path } = await owner.ok('makeCalendar', { params: nursery, body: {} });
    const feed = await (await fetch(`${server.url}${path}`)).text();
    expect(feed).toContain('X-WR-CALNAME:Testing Yard: tareas');
    expect(feed).toContain('Trasplantar TRAY-1');
  });
});

it('a nursery that is set up in a language has species and media named in it', async () => {
  const fresh = await openTestServer();
  try {
    const visitor = new Caller(fresh.url);
    const nurseryId = newId();
    const answer = await visitor.send(
      'setup',
      {
        body: {
          nursery: {
            id: nurseryId,
            name: 'Vivero',
            placeName: 'Nowhere',
            latitudeDeg: 42,
            longitudeDeg: 2,
            elevationM: 300,
            timeZone: 'Europe/Madrid',
            units: 'metric',
            language: 'es',
          },
          person: { id: newId(), name: 'Dueña', email: 'd@testing.example', password: 'una clave larga' },
        },
      },
      { headers: { 'accept-language': 'es' } },
    );
    expect(answer.status).toBe(200);
    const { species, media, containers } = await visitor.ok('catalogue', { params: { nursery: nurseryId } });
    expect(species.find((s) => s.code === 'QPE')!.common).toBe('Roble albar');
    expect(media.map((m) => m.values.name)).toContain('Mantillo de hojas');
    expect(containers.map((c) => c.values.name)).toContain('Semillero abierto');
  } finally {
    await fresh.close();
  }
});

it('a nursery set up without one speaks English', async () => {
  const fresh = await openTestServer();
  try {
    const { owner } = await setUp(fresh);
    expect((await owner.ok('me'))!.memberships[0].language).toBe('en-GB');
  } finally {
    await fresh.close();
  }
});
