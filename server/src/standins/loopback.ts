import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';

/** A simulated device that answers HTTP on loopback. */
export interface StandIn {
  url: string;
  stop: () => Promise<void>;
}

/** Starts a stand-in on a free port of loopback. What it cannot understand it answers with 400. */
export async function startStandIn(
  answer: (req: IncomingMessage, res: ServerResponse) => Promise<void>,
): Promise<StandIn> {
  const server = createServer((req, res) => {
    void answer(req, res).catch(() => {
      if (!res.headersSent) res.writeHead(400);
      res.end();
    });
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    stop: async () => {
      server.closeAllConnections();
      server.close();
      await once(server, 'close');
    },
  };
}

export async function jsonOf(req: IncomingMessage): Promise<unknown> {
  const parts: Buffer[] = [];
  for await (const part of req) parts.push(part as Buffer);
  return JSON.parse(Buffer.concat(parts).toString('utf8'));
}

/** Writes lines as a stream, no faster than they are read. */
export async function sendLines(res: ServerResponse, lines: Iterable<unknown>): Promise<void> {
  res.writeHead(200, { 'content-type': 'application/x-ndjson' });
  for (const line of lines) if (!res.write(`${JSON.stringify(line)}\n`)) await once(res, 'drain');
  res.end();
}

/** A seed from an id, the same for the same id. */
export function seedOf(id: string): number {
  let seed = 7;
  for (const letter of id) seed = (seed * 31 + letter.charCodeAt(0)) >>> 0;
  return seed;
}
