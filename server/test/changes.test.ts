import { once } from 'node:events';
import type { Landed } from '@kauri/core/contract';
import express from 'express';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Changes } from '../src/db/changes';
import { serveChanges } from '../src/http/changes';
import type { Server } from '../src/http/context';
import { startServer, type RunningServer } from '../src/start';
import {
  addPerson,
  benchPlace,
  openTestServer,
  setUpLots,
  TODAY,
  type Caller,
  type TestServer,
} from './harness';

let server: TestServer;
let other: RunningServer;
let yard: Awaited<ReturnType<typeof setUpLots>>;
/** Another nursery of the same owner. */
const elsewhere = newId();
beforeAll(async () => {
  server = await openTestServer();
  other = await startServer({ databaseUrl: server.databaseUrl, port: 0, today: TODAY, logLevel: 'silent' });
  yard = await setUpLots(server);
  await yard.owner.ok('addNursery', {
    body: {
      id: elsewhere,
      name: 'Elsewhere',
      placeName: 'Nowhere',
      latitudeDeg: 54.6,
      longitudeDeg: -2.4,
      elevationM: 185,
      timeZone: 'Europe/London',
      units: 'metric',
    },
  });
});
afterAll(async () => {
  await other.stop();
  await server.close();
});

/** A page that listens: what it heard, one write after another. */
async function listen(base: string, cookie: string, nursery: string) {
  const end = new AbortController();
  const response = await fetch(`${base}/api/nurseries/${nursery}/changes`, {
    headers: { cookie },
    signal: end.signal,
  });
  expect(response.status).toBe(200);
  expect(response.headers.get('content-type')).toBe('text/event-stream');
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  const next = async (): Promise<Landed> => {
    for (;;) {
      const end = text.indexOf('\n\n');
      if (end < 0) {
        const { value, done } = await reader.read();
        if (done) throw new Error('The stream ended.');
        text += value;
        continue;
      }
      const [event, data] = [text.slice(0, end), /^data: (.+)$/m.exec(text.slice(0, end))?.[1]];
      text = text.slice(end + 2);
      if (event && data) return JSON.parse(data) as Landed;
    }
  };
  return { next, end: () => end.abort() };
}

const hear = (nursery: string, at = server.url) => listen(at, yard.owner.cookie, nursery);
const add = (id: string, name: string) =>
  yard.owner.send('addPlace', { params: yard.nursery, body: { id, place: benchPlace(name) } });
/** The last record of the lot in the bed. */
async function lastCount(): Promise<string> {
  const { evidence } = await yard.owner.ok('lot', { params: yard.inBed });
  return evidence.counts.at(-1)!.entry;
}

describe('what others write', () => {
  it('is heard through either server: its area, its lots and its page, and only in its nursery', async () => {
    const { owner, nursery, inBed } = yard;
    const [mine, theirs] = [await hear(nursery.nursery, other.url), await hear(elsewhere, other.url)];
    const counted = { id: newId(), on: '2026-05-20', counted: 60, cause: 'rot' as const };
    await owner.send(
      'countEmergence',
      { params: inBed, body: counted },
      { headers: { 'x-kauri-page': 'page-1' } },
    );
    expect(await mine.next()).toEqual({ area: 'lots', lots: [inBed.lot], page: 'page-1' });
    await add(newId(), 'Bench 8');
    expect(await mine.next()).toEqual({ area: 'yard', lots: null, page: null });
    await owner.ok('addPlace', {
      params: { nursery: elsewhere },
      body: { id: newId(), place: benchPlace('Far bench') },
    });
    expect((await theirs.next()).area).toBe('yard');
    mine.end();
    theirs.end();
  });

  it('is not told of a write that was refused, nor of one sent again', async () => {
    const mine = await hear(yard.nursery.nursery);
    const id = newId();
    expect((await add(id, 'Bench 1')).status).toBe(200);
    expect((await add(newId(), 'Bench 1')).status).toBe(409);
    expect((await add(id, 'Bench 1')).status).toBe(200);
    await yard.owner.ok('undoTogether', {
      params: yard.nursery,
      body: { id: newId(), on: TODAY, entries: [{ lot: yard.inBed.lot, entry: await lastCount() }] },
    });
    expect([(await mine.next()).area, (await mine.next()).area]).toEqual(['yard', 'lots']);
    mine.end();
  });

  it('is told as anything after the database was away', async () => {
    const mine = await hear(yard.nursery.nursery);
    await server.owner.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query like 'listen %'`,
    );
    expect(await mine.next()).toEqual({ area: null, lots: null, page: null });
    mine.end();
  });

  it('is for members alone', async () => {
    const { nursery } = yard.nursery;
    const ask = (caller: Caller, of: string) =>
      fetch(`${server.url}/api/nurseries/${of}/changes`, { headers: { cookie: caller.cookie } });
    const visitor = await addPerson(server, nursery, 'visitor@testing.example', 'visitor');
    expect((await ask(visitor, elsewhere)).status).toBe(404);
    expect((await ask(server.visitor(), nursery)).status).toBe(401);
    expect((await ask(visitor, 'not-an-id')).status).toBe(422);
    const heard = await listen(server.url, visitor.cookie, nursery);
    heard.end();
  });

  it('ends for whoever is taken out of the nursery while they listen', async () => {
    const { nursery } = yard.nursery;
    const leaver = await addPerson(server, nursery, 'leaver@testing.example', 'crew');
    const told = new Set<(landed: Landed) => void>();
    const changes: Changes = {
      follow: (_, tell) => {
        told.add(tell);
        return () => told.delete(tell);
      },
      stop: () => Promise.resolve(),
    };
    const app = express();
    serveChanges(app, { pool: server.owner } as unknown as Server, changes, 20);
    const http = app.listen(0, '127.0.0.1');
    await once(http, 'listening');
    try {
      const { port } = http.address() as { port: number };
      const mine = await listen(`http://127.0.0.1:${port}`, leaver.cookie, nursery);
      expect(told.size).toBe(1);
      const ended = expect(mine.next()).rejects.toThrow('The stream ended.');
      await server.owner.query(
        `delete from membership where nursery_id = $1 and person_id = (select id from person where email = $2)`,
        [nursery, 'leaver@testing.example'],
      );
      await ended;
      expect(told.size).toBe(0);
    } finally {
      http.closeAllConnections();
      http.close();
    }
  });
});
