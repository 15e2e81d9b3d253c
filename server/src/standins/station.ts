import type { IncomingMessage, ServerResponse } from 'node:http';
import {
  dayOf,
  isoOf,
  roughNormals,
  seededRandom,
  waveAt,
  dayOfYear,
  type CoverKind,
  type HourReading,
} from '@kauri/core';
import { jsonOf, seedOf, sendLines, startStandIn, type StandIn } from './loopback';

/*
 * A simulated weather station, and the small logger that hangs under a cover. It stands in for a device on the yard’s
 * network: it speaks HTTP, keeps hours in a memory of its own and streams them, and can be made to fail.
 *
 *   PUT  /stations/:id/sky     where it stands and the weather it would feel by itself
 *   PUT  /stations/:id/fault   { fault }
 *   GET  /stations/:id/hours?from=&to=   one JSON line an hour, as a stream
 */

export type StationFault = 'none' | 'gap' | 'spike' | 'drift' | 'stuck' | 'dead';

export interface StationSky {
  latitudeDeg: number;
  elevationM: number;
  /** What it hangs under; null in the open. */
  under: CoverKind | null;
  days: { day: string; tMinC: number; tMaxC: number; rainMm: number | null }[];
}

interface Device {
  sky: StationSky;
  days: Map<string, StationSky['days'][number]>;
  fault: StationFault;
}

/** What a cover truly does to a day here, °C: not what anyone would have guessed. */
const trueCover: Record<CoverKind, { lowC: number; highC: number }> = {
  shade: { lowC: 0.8, highC: -2.1 },
  tunnel: { lowC: 2.1, highC: 5.2 },
  glass: { lowC: 3.2, highC: 6.1 },
  other: { lowC: 0.3, highC: 0.3 },
};

export function startStationStandIn(): Promise<StandIn> {
  const devices = new Map<string, Device>();
  return startStandIn((req, res) => answer(devices, req, res));
}

async function answer(
  devices: Map<string, Device>,
  req: IncomingMessage,
  res: ServerResponse,
): Promise<void> {
  const url = new URL(req.url ?? '/', 'http://station');
  const [, area, id, what] = url.pathname.split('/');
  if (area !== 'stations' || !id) return void res.writeHead(404).end();
  const device = devices.get(id);
  if (req.method === 'PUT' && what === 'sky') {
    const sky = (await jsonOf(req)) as StationSky;
    devices.set(id, { sky, days: new Map(sky.days.map((d) => [d.day, d])), fault: device?.fault ?? 'none' });
    return void res.writeHead(204).end();
  }
  if (req.method === 'PUT' && what === 'fault') {
    const { fault } = (await jsonOf(req)) as { fault: StationFault };
    const nowhere = { latitudeDeg: 0, elevationM: 0, under: null, days: [] };
    devices.set(id, { ...(device ?? { sky: nowhere, days: new Map() }), fault });
    return void res.writeHead(204).end();
  }
  if (what !== 'hours' || !device) return void res.writeHead(404).end();
  const [from, to] = [url.searchParams.get('from')!, url.searchParams.get('to')!];
  await sendLines(res, hours(id, device, from, to));
}

/** Hours between two, as the device tells them: its faults lie in the days before the last. */
function* hours(id: string, { sky, days, fault }: Device, from: string, to: string): Generator<HourReading> {
  const last = dayOf(to.slice(0, 10));
  for (let day = dayOf(from.slice(0, 10)); day <= last; day++) {
    const ago = last - day;
    if (fault === 'dead' && ago < 11) return;
    if (fault === 'gap' && ago >= 3 && ago < 6) continue;
    for (const reading of hoursOfDay(id, sky, days, day)) {
      if (reading.hour < from || reading.hour > to) continue;
      const tempC = reading.tempC!;
      if (fault === 'spike' && ago === 2 && reading.hour.endsWith('T15')) reading.tempC = tempC + 25;
      if (fault === 'stuck' && ago < 4) reading.tempC = 8.8;
      if (fault === 'drift' && ago < 40) reading.tempC = tempC + 0.12 * (40 - ago);
      yield reading;
    }
  }
}

function hoursOfDay(id: string, sky: StationSky, days: Device['days'], day: number): HourReading[] {
  const date = isoOf(day);
  const random = seededRandom((seedOf(id) ^ (day * 2654435761)) >>> 0);
  const felt = days.get(date) ?? madeUp(sky, day, seededRandom(day * 7919 + 13));
  const cover = sky.under === null ? { lowC: 0, highC: 0 } : trueCover[sky.under];
  const wobble = sky.under === null ? 0 : 0.5;
  const low = felt.tMinC + cover.lowC + wobble * (random() - 0.5);
  const high = Math.max(low + 0.2, felt.tMaxC + cover.highC + wobble * (random() - 0.5));
  const wind = 1.5 + 4.5 * random();
  return Array.from({ length: 24 }, (_, h) => {
    const share = (1 - Math.cos(((h - 4) / 24) * 2 * Math.PI)) / 2;
    const still = h === 4 || h === 16 ? 0 : 0.15 * (random() - 0.5);
    const tempC = Math.min(high, Math.max(low, low + (high - low) * share + still));
    return {
      hour: `${date}T${String(h).padStart(2, '0')}`,
      tempC: round(tempC, 100),
      rainMm: sky.under !== null ? null : h >= 9 && h < 14 ? round((felt.rainMm ?? 0) / 5, 1000) : 0,
      humidity: round(Math.max(0.25, 0.94 - 0.035 * (tempC - low)), 100),
      windMs: sky.under !== null ? null : round(wind * (0.6 + 0.8 * share), 10),
    };
  });
}

/** A day nobody told it of, from the rough climate of where it stands. */
function madeUp(sky: StationSky, day: number, random: () => number) {
  const normals = roughNormals(sky.latitudeDeg, sky.elevationM);
  const shift = 3 * (random() + random() - 1);
  return {
    day: isoOf(day),
    tMinC: waveAt(normals.tMinC, dayOfYear(day)) + shift,
    tMaxC: waveAt(normals.tMaxC, dayOfYear(day)) + shift,
    rainMm: random() < 0.4 ? round(8 * random(), 10) : 0,
  };
}

const round = (value: number, to: number) => Math.round(value * to) / to;
