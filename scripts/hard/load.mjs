import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { v7 as newId } from 'uuid';
import { Plain } from '../lib/steps.mjs';

const WRITERS = 8;
/** Longest a writer asks again for one write before it is a hang, ms. */
const PATIENCE_MS = 60_000;

/** A nursery of its own in an empty Kauri, and its owner’s session. */
export async function open(url) {
  const nursery = newId();
  const person = { id: newId(), name: 'Ada', email: 'ada@testing.example', password: 'a long password' };
  const set = await post(url, '/setup', null, {
    nursery: {
      id: nursery,
      name: `Crash ${randomUUID().slice(0, 8)}`,
      placeName: 'Nowhere',
      latitudeDeg: 50,
      longitudeDeg: 0,
      elevationM: 10,
      timeZone: 'UTC',
      units: 'metric',
    },
    person,
  });
  const cookie = set.headers.getSetCookie()[0].split(';')[0];
  return { nursery, cookie };
}

/** A write, as a browser sends it. */
const post = (url, path, cookie, body) =>
  fetch(`${url}/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url, ...(cookie ? { cookie } : {}) },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(20_000),
  });

/** People who add benches, each write with its own id, and ask again until it is acknowledged. */
export function writeAll(url, { nursery, cookie }) {
  const taken = new Map();
  /** How often each answer that asks to try again came: its status, or 0 where nobody answered. */
  const refused = new Map();
  let stopped = false;
  let longest = 0;
  /** Who has written, from beginning to end, since they were last waited for. */
  const wrote = new Set();
  let mark = 0;
  const write = async (who) => {
    for (let n = 0; !stopped; n++) {
      const id = newId();
      const name = `Bench ${who}-${n}`;
      const place = {
        kind: 'bench',
        name,
        eastM: who,
        northM: n % 100,
        angleDeg: 0,
        mediumId: null,
        design: { schema: 1, lengthMm: 3000, widthMm: 1500 },
      };
      const began = Date.now();
      for (;;) {
        const answer = await post(url, `/nurseries/${nursery}/places`, cookie, { id, place }).catch(
          () => null,
        );
        if (answer?.ok && (await answer.json().catch(() => null))) {
          taken.set(id, name);
          break;
        }
        const status = answer?.status ?? 0;
        refused.set(status, (refused.get(status) ?? 0) + 1);
        if (answer && answer.status < 500) throw new Plain(`${answer.status} ${await answer.text()}`);
        if (Date.now() - began > PATIENCE_MS) throw new Plain('A write was not taken within a minute.');
        await pause(100);
      }
      longest = Math.max(longest, Date.now() - began);
      if (began >= mark) wrote.add(who);
    }
  };
  const all = Promise.all(Array.from({ length: WRITERS }, (_, who) => write(who)));
  all.catch(() => undefined);
  return {
    taken,
    refused,
    /** How long a write took at most since measuring began, with asking again, ms. */
    longestMs: () => longest,
    beginMeasuring: () => (longest = 0),
    /** Ends once everybody has written something they began after now. */
    everyoneWrote: async () => {
      mark = Date.now();
      wrote.clear();
      while (wrote.size < WRITERS) await Promise.race([pause(100), all]);
    },
    stop: async () => {
      stopped = true;
      await all;
      return taken;
    },
  };
}

/** Every write that was acknowledged is there whole, once. @throws Plain where one is not */
export async function check(databaseUrl, taken) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    const { rows } = await client.query(
      `select p.id, p.name, (select count(*)::int from journal j where j.subject_id = p.id) as notes,
         (select count(*)::int from receipt r where r.id = p.id and r.answer is not null) as receipts
       from place p where p.kind = 'bench'`,
    );
    const kept = new Map(rows.map((row) => [row.id, row]));
    for (const [id, name] of taken) if (kept.get(id)?.name !== name) throw new Plain(`${name} was lost.`);
    if (new Set(rows.map((row) => row.name)).size !== rows.length) throw new Plain('A write was kept twice.');
    const half = rows.filter((row) => row.notes !== 1 || row.receipts !== 1);
    if (half.length) throw new Plain(`${half.length} writes were kept in part.`);
  } finally {
    await client.end();
  }
}
