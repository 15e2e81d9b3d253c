import type pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roundAt, startRegular } from '../src/jobs/regular';
import { openTestServer, quiet, type TestServer } from './harness';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server.close());

const at = (time: string) => Date.parse(`2026-11-24T${time}Z`);
const iso = (everyMinutes: number, afterMinutes: number, time: string) =>
  roundAt({ everyMinutes, afterMinutes }, at(time)).toISOString().slice(5, 16);

describe('regular work', () => {
  it('comes round by the clock, each round from its beginning', () => {
    expect(iso(1, 0, '13:27:59')).toBe('11-24T13:27');
    expect(iso(60, 0, '13:27:59')).toBe('11-24T13:00');
    expect(iso(1440, 90, '13:27:59')).toBe('11-24T01:30');
    // Before the day's time it is still the round of the day before.
    expect(iso(1440, 90, '01:29:59')).toBe('11-23T01:30');
    expect(iso(1440, 90, '01:30:00')).toBe('11-24T01:30');
  });
  it('is asked for once a round by however many servers; a day’s first when its next round begins', async () => {
    const jobs = async (task: string) =>
      (
        await server.owner.query(
          `select count(*)::int as n from graphile_worker._private_jobs j
             join graphile_worker._private_tasks t on t.id = j.task_id where t.identifier = $1`,
          [task],
        )
      ).rows[0].n as number;
    const known = async (task: string) =>
      (
        await server.owner.query(
          'select last_execution from graphile_worker._private_known_crontabs where identifier = $1',
          [task],
        )
      ).rows[0]?.last_execution as Date | undefined;
    const regular = [
      { task: 'tried-hourly', everyMinutes: 60 },
      { task: 'tried-daily', everyMinutes: 1440, afterMinutes: 90 },
    ];
    const stops = [1, 2, 3].map(() => startRegular(server.owner, regular, quiet, 20));
    try {
      await expect.poll(() => known('tried-daily'), { timeout: 20_000 }).toBeInstanceOf(Date);
      expect([await jobs('tried-hourly'), await jobs('tried-daily')]).toEqual([1, 0]);
    } finally {
      for (const stop of stops) stop();
    }
    // The machine was off for a night: the round it missed is asked for.
    await server.owner.query(
      `update graphile_worker._private_known_crontabs set last_execution = last_execution - interval '1 day' where identifier = 'tried-daily'`,
    );
    const stop = startRegular(server.owner, regular, quiet, 20);
    try {
      await expect.poll(() => jobs('tried-daily'), { timeout: 20_000 }).toBe(1);
    } finally {
      stop();
    }
  });
  it('is asked for again where the database could not take it, and brings nothing down', async () => {
    let asked = 0;
    const pool = {
      query: () =>
        ++asked < 3 ? Promise.reject(new Error('No space left on device')) : Promise.resolve({ rows: [] }),
    } as unknown as pg.Pool;
    const told: unknown[] = [];
    const stop = startRegular(
      pool,
      [{ task: 'x', everyMinutes: 60 }],
      { error: (of: unknown) => told.push(of) } as never,
      5,
    );
    try {
      await expect.poll(() => asked, { timeout: 20_000 }).toBe(3);
      expect(told).toHaveLength(2);
    } finally {
      stop();
    }
  });
});
