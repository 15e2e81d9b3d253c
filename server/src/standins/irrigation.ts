import type { IncomingMessage, ServerResponse } from 'node:http';
import { cropCoefficient, dayOf, isoOf, seededRandom } from '@kauri/core';
import type { Programme, WaterReadingRow } from '@kauri/core/contract';
import { jsonOf, seedOf, sendLines, startStandIn, type StandIn } from './loopback';

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

/** Starts the stand-in on a free port of loopback. */
export function startIrrigationStandIn(): Promise<StandIn> {
  const controllers = new Map<string, Controller>();
  return startStandIn((req, res) => answer(controllers, req, res));
}

async function answer(controllers: Map<string, Controller>, req: IncomingMessage, res: ServerResponse) {
  const url = new URL(req.url ?? '/', 'http://controller');
  const [, area, id, what] = url.pathname.split('/');
  if (area !== 'controllers' || !id) return void res.writeHead(404).end();
  let controller = controllers.get(id);
  if (req.method === 'PUT') {
    const body = await jsonOf(req);
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
  await sendLines(res, readings(controller, url.searchParams.get('from')!, url.searchParams.get('to')!));
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
