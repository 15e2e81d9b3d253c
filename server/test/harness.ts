import type { AnswerOf, BodyInputOf, ParamsOf, Problem, QueryInputOf, RouteName } from '@kauri/core/contract';
import { paths, routes } from '@kauri/core/contract';
import pg from 'pg';
import pino from 'pino';
import { v7 as newId } from 'uuid';
import { expect, vi } from 'vitest';
import { startServer, type RunningServer } from '../src/start';

export const TODAY = '2026-11-24';
/** A log that says nothing. */
export const quiet = pino({ level: 'silent' });
const DEMO_PASSWORD = 'grow-young-trees';

/** A server on a database of its own, both gone after `stop`. */
export interface TestServer extends RunningServer {
  /** Connected as the owner, whom row-level security does not bind where it is a superuser. */
  owner: pg.Pool;
  databaseUrl: string;
  /** Somebody signed in, or nobody yet. */
  visitor: () => Caller;
  signIn: (email: string, password?: string) => Promise<Caller>;
  /** Ends server and database. */
  close: () => Promise<void>;
}

const adminUrl = process.env.KAURI_TEST_DATABASE;
let counter = 0;

export async function openTestServer({ demo = false, today = TODAY } = {}): Promise<TestServer> {
  if (!adminUrl) throw new Error('These tests need a PostgreSQL: run them with npm test -- server.');
  const name = `kauri_test_${process.pid}_${++counter}`;
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  // Copied from a template where the runner made one; the demo's stands on one day.
  const template = demo
    ? today === TODAY
      ? process.env.KAURI_TEST_DEMO
      : undefined
    : process.env.KAURI_TEST_EMPTY;
  await admin.query(`create database ${name}${template ? ` template ${template} strategy file_copy` : ''}`);
  const url = new URL(adminUrl);
  url.pathname = `/${name}`;
  const databaseUrl = url.toString();
  const server = await startServer({
    databaseUrl,
    port: 0,
    demo,
    today,
    logLevel: process.env.KAURI_LOG ?? 'silent',
  });
  const owner = new pg.Pool({ connectionString: databaseUrl, max: 4 });
  // Dropping the database ends its idle connections.
  owner.on('error', () => undefined);
  // Also one that is being closed at that moment.
  owner.on('connect', (client) => client.on('error', () => undefined));
  const visitor = () => new Caller(server.url);
  return {
    ...server,
    owner,
    databaseUrl,
    visitor,
    signIn: async (email, password = DEMO_PASSWORD) => {
      const caller = visitor();
      await caller.ok('signIn', { body: { email, password } });
      return caller;
    },
    close: async () => {
      await server.stop();
      await owner.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}

interface Input<N extends RouteName> {
  params?: ParamsOf<N>;
  query?: QueryInputOf<N>;
  body?: BodyInputOf<N>;
}

/** Calls routes as a browser would: with its origin, and the cookie it was given. */
export class Caller {
  cookie = '';
  origin: string | null;
  constructor(readonly base: string) {
    this.origin = base;
  }

  async send<N extends RouteName>(
    name: N,
    { params, query, body }: Input<N> = {},
    init: RequestInit = {},
  ): Promise<Response> {
    const [method, path] = paths[name];
    const filled = path.replace(/:(\w+)/g, (_, key: string) =>
      encodeURIComponent(String((params as Record<string, unknown>)[key])),
    );
    const pairs = Object.entries((query ?? {}) as Record<string, unknown>).filter(
      ([, value]) => value !== undefined && value !== null,
    );
    const search = new URLSearchParams(
      pairs.map(([key, value]): [string, string] => [key, String(value)]),
    ).toString();
    const response = await fetch(`${this.base}/api${filled}${search && `?${search}`}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...init,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(this.origin ? { origin: this.origin } : {}),
        cookie: this.cookie,
        ...(init.headers as Record<string, string> | undefined),
      },
    });
    const set = response.headers.getSetCookie()[0];
    if (set) this.cookie = set.split(';')[0];
    return response;
  }

  /** The answer of a call that goes well. */
  async ok<N extends RouteName>(name: N, input: Input<N> = {}): Promise<AnswerOf<N>> {
    const response = await this.send(name, input);
    if (!response.ok) throw new Error(`${name}: ${response.status} ${await response.text()}`);
    // What is sent is what the contract says, no more and no less.
    const answer: unknown = await response.json();
    expect(routes[name].answer.parse(answer)).toEqual(answer);
    return answer as AnswerOf<N>;
  }

  /** Today of a nursery, once everything that changed is worked out. */
  async today(params: ParamsOf<'today'>): Promise<AnswerOf<'today'>> {
    return vi.waitFor(
      async () => {
        const answer = await this.ok('today', { params });
        expect(answer.working).toBe(false);
        return answer;
      },
      { timeout: 30_000, interval: 40 },
    );
  }

  /** The problem of a call that is refused. */
  async refused<N extends RouteName>(name: N, input: Input<N> = {}): Promise<Problem> {
    const response = await this.send(name, input);
    if (response.ok) throw new Error(`${name} was taken, but should have been refused.`);
    return (await response.json()) as Problem;
  }

  /** Sends a table and gives back every line of the stream that answers. */
  async table<N extends 'importWeather' | 'importMeasurements'>(
    name: N,
    input: Input<N>,
    text: string | Uint8Array,
  ): Promise<
    {
      progress?: number;
      report?: {
        good: number;
        bad: number;
        known: number;
        stored: boolean;
        taken: string | null;
        issues: { line: number; message: string }[];
        gaps: unknown[];
        first: string;
        last: string;
        lines: number;
      };
      problem?: Problem;
    }[]
  > {
    const response = await this.send(name, input, {
      body: text as RequestInit['body'],
      headers: { 'content-type': 'text/csv' },
    });
    const lines = (await response.text()).trim().split('\n');
    return lines.map((line) => {
      const parsed = JSON.parse(line);
      return response.ok ? parsed : { problem: parsed };
    });
  }
}

/** What each lot's acts were last worked out from: another word says it was forecast anew. */
export async function basesOf(server: TestServer, nurseryId: string): Promise<Record<string, string>> {
  const { rows } = await server.owner.query<{ lot_id: string; basis: string }>(
    'select lot_id, basis from lot_asks where nursery_id = $1',
    [nurseryId],
  );
  return Object.fromEntries(rows.map((row) => [row.lot_id, row.basis]));
}

/** An owner with an empty nursery, set up as a first start does. */
export async function setUp(server: TestServer, name = 'Testing Yard') {
  const owner = server.visitor();
  const nurseryId = newId();
  await owner.ok('setup', {
    body: {
      nursery: {
        id: nurseryId,
        name,
        placeName: 'Nowhere',
        latitudeDeg: 54.6,
        longitudeDeg: -2.4,
        elevationM: 185,
        timeZone: 'Europe/London',
        units: 'metric',
      },
      person: { id: newId(), name: 'Owner', email: 'owner@testing.example', password: 'a long password' },
    },
  });
  const nursery = { nursery: nurseryId };
  const catalogue = await owner.ok('catalogue', { params: nursery });
  const speciesId = (code: string) => catalogue.species.find((s) => s.code === code)!.id;
  return { owner, nurseryId, nursery, catalogue, speciesId };
}

/** Adds someone to a nursery as its owner's database would, without an invitation. */
export async function addPerson(
  server: TestServer,
  nurseryId: string,
  email: string,
  role: string,
): Promise<Caller> {
  const { rows } = await server.owner.query('select password_hash from person where email = $1', [
    'owner@testing.example',
  ]);
  const id = newId();
  await server.owner.query('insert into person (id, name, email, password_hash) values ($1, $2, $3, $4)', [
    id,
    email,
    email,
    rows[0].password_hash,
  ]);
  await server.owner.query('insert into membership (nursery_id, person_id, role) values ($1, $2, $3)', [
    nurseryId,
    id,
    role,
  ]);
  return server.signIn(email, 'a long password');
}

export const bedPlace = (name: string) =>
  ({
    kind: 'bed',
    name,
    eastM: 0,
    northM: 0,
    angleDeg: 0,
    mediumId: null,
    design: {
      schema: 1,
      measured: 'outside',
      lengthMm: 2400,
      widthMm: 1200,
      tiers: ['2x8', '2x8'],
      layers: [{ kind: 'mesh', openingMm: [12.7, 12.7] as [number, number], wireMm: 1.05 }],
      fillBelowRimMm: 20,
      ground: 'paving',
      airGapMm: 60,
      lidAboveRimMm: null,
    },
  }) satisfies BodyInputOf<'addPlace'>['place'];

export const benchPlace = (name: string) =>
  ({
    kind: 'bench',
    name,
    eastM: 5,
    northM: 0,
    angleDeg: 0,
    mediumId: null,
    design: { schema: 1, lengthMm: 3000, widthMm: 1500 },
  }) satisfies BodyInputOf<'addPlace'>['place'];

/** A nursery with a bed, a bench and a lot of a hundred seeds in each, some of them up. */
export async function setUpLots(server: TestServer) {
  const base = await setUp(server);
  const { owner, nursery, catalogue, speciesId } = base;
  const bed = await owner.ok('addPlace', { params: nursery, body: { id: newId(), place: bedPlace('Bed') } });
  const bench = await owner.ok('addPlace', {
    params: nursery,
    body: { id: newId(), place: benchPlace('Bench') },
  });
  const sow = async (code: string, stage: BodyInputOf<'sowLot'>['stage'], standing = 80) => {
    const id = newId();
    await owner.ok('sowLot', {
      params: nursery,
      body: {
        id,
        code,
        speciesId: speciesId('ALN'),
        sownOn: '2026-04-08',
        seedState: 'ready',
        targetHeightCm: 30,
        seeds: 100,
        stage,
      },
    });
    const at = { ...nursery, lot: id };
    if (standing)
      await owner.ok('countEmergence', {
        params: at,
        body: { id: newId(), on: '2026-05-12', counted: standing, cause: null },
      });
    return at;
  };
  const inBed = await sow('BED-1', {
    kind: 'bed',
    id: newId(),
    placeId: bed.id,
    densityPerM2: 200,
    areaM2: 1,
  });
  const onBench = await sow('TRAY-1', {
    kind: 'container',
    id: newId(),
    placeId: bench.id,
    containerTypeId: catalogue.containers[0].id,
    trays: 2,
  });
  return { ...base, bed, bench, inBed, onBench, sow };
}
