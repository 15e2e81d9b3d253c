import { createServer } from 'node:http';
import type pg from 'pg';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';

export interface Metrics {
  url: string;
  onAnswer: (route: string, status: number, tookMs: number) => void;
  stop: () => Promise<void>;
}

/** Tells how the server does in Prometheus's text form, at /metrics of a port of this machine alone. */
export async function serveMetrics(port: number, pool: pg.Pool): Promise<Metrics> {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const took = new Histogram({
    name: 'kauri_answer_seconds',
    help: 'Time to answer, by route of the contract and status',
    labelNames: ['route', 'status'],
    buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
    registers: [registry],
  });
  new Gauge({
    name: 'kauri_database_connections',
    help: 'Connections to the database: all, idle, and calls that wait for one',
    labelNames: ['state'],
    registers: [registry],
    collect() {
      this.set({ state: 'all' }, pool.totalCount);
      this.set({ state: 'idle' }, pool.idleCount);
      this.set({ state: 'waiting' }, pool.waitingCount);
    },
  });
  const http = createServer((req, res) => {
    if (req.url !== '/metrics') return void res.writeHead(404).end();
    registry.metrics().then(
      (text) => res.writeHead(200, { 'content-type': registry.contentType }).end(text),
      () => res.writeHead(500).end(),
    );
  });
  await new Promise<void>((resolve, reject) => {
    http.once('error', reject);
    http.listen(port, '127.0.0.1', resolve);
  });
  const at = http.address();
  return {
    url: `http://127.0.0.1:${typeof at === 'object' && at ? at.port : port}/metrics`,
    onAnswer: (route, status, tookMs) => took.observe({ route, status }, tookMs / 1000),
    stop: () =>
      new Promise((resolve) => {
        http.closeAllConnections();
        http.close(() => resolve());
      }),
  };
}
