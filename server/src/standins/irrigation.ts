import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { cropCoefficient, dayOf, isoOf, seededRandom } from '@kauri/core';
import type { Programme, WaterReadingRow } from '@kauri/core/contract';

/*
 * A simulated irrigation controller with a water meter a zone and a moisture probe a place. It stands in for a
 * device on the yard's network, speaks HTTP as one would, keeps no records of Kauri's, and can be made to fail.
 *
 *   PUT  /controllers/:id/programme   what to run
 *   PUT  /controllers/:id/sky         days of evaporation and rain, which the yard would feel by itself
 *   PUT  /controllers/:id/fault       { placeId | null, fault }
 *   GET  /controllers/:id/readings?from=&to=   one JSON line a place and day, as a stream
 */

export type StandInFaultName = 'none' | 'stuck-closed' | 'stuck-open' | 'dead-probe' | 'no-supply';

/** A day's weather over the yard. */
export interface SkyDay {
  day: string;
  et0Mm: number;
  rainMm: number;
}

interface Controller {
  programme: Programme | null;
  sky: Map<string, SkyDay>;
  faults: Map<string, StandInFaultName>;
}

export interface StandIn {
  url: string;
  stop: () => Promise<void>;
}

/** Starts the stand-in on a free port of loopback. */
export async function startIrrigationStandIn(): Promise<StandIn> {
  const controllers = new Map<string, Controller>();
  const server = createServer((req, res) => {
    void answer(controllers, req, res).catch(() => {
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

async function answer(controllers: Map<string, Controller>, req: IncomingMessage, res: ServerResponse) {
  const url = new URL(req.url ?? '/', 'http://controller');
  const [, area, id, what] = url.pathname.split('/');
  if (area !== 'controllers' || !id) return void res.writeHead(404).end();
  let controller = controllers.get(id);
  if (req.method === 'PUT') {
    const body = JSON.parse(await textOf(req)) as unknown;
    if (!controller)
      controllers.set(id, (controller = { programme: null, sky: new Map(), faults: new Map() }));
    if (what === 'programme') controller.programme = body as Programme;
    else if (what === 'sky') for (const day of body as SkyDay[]) controller.sky.set(day.day, day);
    else if (what === 'fault') {
      const { placeId, fault } = body as { placeId: string | null; fault: StandInFaultName };
      if (fault === 'none' && placeId === null) controller.faults.clear();
      else controller.faults.set(placeId ?? 'all', fault);
    } else return void res.writeHead(404).end();
    return void res.writeHead(204).end();
  }
  if (what !== 'readings' || !controller?.programme) return void res.writeHead(404).end();
  res.writeHead(200, { 'content-type': 'application/x-ndjson' });
  for (const reading of readings(controller, url.searchParams.get('from')!, url.searchParams.get('to')!)) {
    if (!res.write(`${JSON.stringify(reading)}\n`)) await once(res, 'drain');
  }
  res.end();
}

async function textOf(req: IncomingMessage): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of req) parts.push(part as Buffer);
  return Buffer.concat(parts).toString('utf8');
}

/** Plays the yard day by day since the programme began, and tells the days asked for. */
function* readings(
  { programme, sky, faults }: Controller,
  from: string,
  to: string,
): Generator<WaterReadingRow> {
  const start = dayOf(programme!.from);
  const all = faults.get('all');
  for (const zone of programme!.zones) {
    for (const place of zone.places) {
      const random = seededRandom(seedOf(place.placeId));
      const fault = all && all !== 'none' ? all : (faults.get(place.placeId) ?? 'none');
      let missing = place.heldMm * 0.2;
      let since = Infinity;
      for (let day = start; day <= dayOf(to); day++) {
        const date = isoOf(day);
        const { et0Mm, rainMm } = sky.get(date) ?? { et0Mm: 1.5, rainMm: 0 };
        const due = since + 1 >= zone.everyDays - 1e-9;
        const asked = due ? (place.flowLph * zone.minutes) / 60 : 0;
        const noise = 1 + 0.06 * (random() - 0.5);
        const litres =
          fault === 'stuck-closed' || fault === 'no-supply'
            ? 0
            : fault === 'stuck-open'
              ? place.flowLph * 6
              : asked * noise;
        since = due ? 0 : since + 1;
        missing += cropCoefficient(place.cover) * et0Mm - place.rainShare * rainMm;
        missing = Math.max(0, Math.min(place.heldMm, missing));
        const before = 1 - missing / place.heldMm;
        missing = Math.max(0, missing - litres / place.areaM2);
        const after = 1 - missing / place.heldMm;
        if (date < from) continue;
        const dead = fault === 'dead-probe';
        const probe = (share: number) =>
          dead ? null : Math.max(0, Math.min(1, share + 0.01 * (random() - 0.5)));
        yield {
          placeId: place.placeId,
          day: date,
          askedLitres: asked,
          litres,
          before: probe(before),
          after: probe(after),
        };
      }
    }
  }
}

function seedOf(id: string): number {
  let seed = 7;
  for (const letter of id) seed = (seed * 31 + letter.charCodeAt(0)) >>> 0;
  return seed;
}
