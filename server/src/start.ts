import { existsSync } from 'node:fs';
import type { Server as HttpServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { plainDateAt } from '@kauri/core';
import type { Door } from '@kauri/core/contract';
import pino from 'pino';
import { listenToChanges } from './db/changes';
import { openPool, throughPooler } from './db/tenant';
import { prepareDatabase } from './db/prepare';
import { loadDemo } from './demo/load';
import { makeApp } from './http/app';
import { serveMetrics } from './http/metrics';
import { startJobs, type Jobs } from './jobs/queue';
import { startIrrigationStandIn } from './standins/irrigation';
import { startInstrumentStandIn } from './standins/instruments';
import { startStationStandIn } from './standins/station';

export interface StartOptions {
  /** A connection that owns the database. */
  databaseUrl: string;
  /** Where requests reach the database through a pooler by transaction. */
  poolerUrl?: string;
  /** 0 for any free port. */
  port: number;
  host?: string;
  /** Fixes today's date (YYYY-MM-DD); the real date where unset. */
  today?: string;
  /** Load the demo nurseries into a database that has nobody yet. */
  demo?: boolean;
  logLevel?: string;
  /** Where people reach Kauri, when something in front of it ends TLS. */
  address?: string;
  /** Requests a minute one person may make; 0 sets no limit. */
  requestsPerMinute?: number;
  /** A port on 127.0.0.1 that tells how the server does; 0 for any free one. */
  metricsPort?: number;
  /** A folder for nightly copies of the whole database. */
  backups?: string;
  /** Folder of PostgreSQL's programs, where they are not on the path. */
  postgresBin?: string;
}

export { copyWhole, restoreWhole } from './backup/copy';
export { settingsOf, type Settings } from './settings';

export interface RunningServer {
  url: string;
  /** Where it tells how it does; null where that was not asked for. */
  metricsUrl: string | null;
  demoPeople: Door['demoPeople'];
  needsSetup: boolean;
  stop: () => Promise<void>;
}

/**
 * Brings the database up to date, loads the demo if asked, and answers HTTP.
 * @throws Error with code EADDRINUSE when the port is taken
 */
export async function startServer({
  databaseUrl,
  poolerUrl,
  port,
  host = '127.0.0.1',
  today: fixed,
  demo,
  logLevel = 'warn',
  address,
  requestsPerMinute,
  metricsPort,
  backups,
  postgresBin,
}: StartOptions): Promise<RunningServer> {
  const at = (path: string) => fileURLToPath(new URL(path, import.meta.url));
  const migrations = [at('./migrations'), at('./db/migrations')].find(existsSync)!;
  const log = pino({ level: logLevel });
  const workUrl = await prepareDatabase(databaseUrl, migrations);
  const requestUrl = poolerUrl ? throughPooler(workUrl, poolerUrl) : workUrl;
  const pool = openPool(requestUrl, { isPooled: poolerUrl !== undefined });
  const changes = listenToChanges(workUrl, log);
  const standIns = await Promise.all([
    startIrrigationStandIn(),
    startStationStandIn(),
    startInstrumentStandIn(),
  ]);
  const [irrigation, stations, instruments] = standIns;
  const server = {
    pool,
    log,
    today: (timeZone: string) => fixed || plainDateAt(new Date(), timeZone),
    askToday: (_nurseryId: string): void => undefined,
    askSeason: (): void => undefined,
    askPractice: (_personId: string): void => undefined,
    irrigationUrl: irrigation.url,
    stationUrl: stations.url,
    instrumentUrl: instruments.url,
  };
  let jobs: Jobs | null = null;
  const metrics = metricsPort === undefined ? null : await serveMetrics(metricsPort, pool);
  const close = async () => {
    await jobs?.stop();
    await metrics?.stop();
    await changes.stop();
    await Promise.all([pool.end(), ...standIns.map((standIn) => standIn.stop())]);
  };
  const webRoot = at('../../web/dist');
  const app = makeApp({
    server,
    log,
    changes,
    webRoot: existsSync(webRoot) ? webRoot : undefined,
    address,
    requestsPerMinute,
    onAnswer: metrics?.onAnswer,
  });
  try {
    if (demo) await loadDemo(server, databaseUrl);
    jobs = await startJobs({
      ownerUrl: databaseUrl,
      databaseUrl: workUrl,
      pool,
      log,
      today: server.today,
      standIns: {
        irrigationUrl: irrigation.url,
        stationUrl: stations.url,
        instrumentUrl: instruments.url,
      },
      copies: backups === undefined ? null : { folder: backups, bin: postgresBin ?? null },
    });
    server.askToday = jobs.askToday;
    server.askSeason = jobs.askSeason;
    server.askPractice = jobs.askPractice;
    const people = await pool.query(
      'select name, role, nursery, email, password from demo_person order by place',
    );
    const setUp = await pool.query<{ done: boolean }>('select is_set_up() as done');
    const listening = await new Promise<HttpServer>((resolve, reject) => {
      const http = app.listen(port, host, (error?: Error) => (error ? reject(error) : resolve(http)));
    });
    // A browser or proxy that keeps a connection lets go of it before the server does.
    listening.keepAliveTimeout = 75_000;
    const at = listening.address();
    const stop = async () => {
      listening.closeAllConnections();
      await new Promise((resolve) => listening.close(resolve));
      await close();
    };
    const bound = typeof at === 'object' && at ? at.port : port;
    return {
      url: `http://${host}:${bound}`,
      metricsUrl: metrics?.url ?? null,
      demoPeople: people.rows,
      needsSetup: !setUp.rows[0].done,
      stop,
    };
  } catch (error) {
    await close();
    throw error;
  }
}
