import type { IncomingMessage, ServerResponse } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { normalDraw, seededRandom } from '@kauri/core';
import { startStandIn, type StandIn } from './loopback';

/*
 * A simulated digital caliper and height stick. Whoever holds them measures plant after plant; each reading goes out as a
 * line of a stream. (The same tools plugged in as a keyboard type the number and Enter, which any field takes.)
 *
 *   GET /caliper/readings?around=&cv=&seed=&pace=   { "value": 4.31, "unit": "mm" }, a line a plant
 *   GET /stick/readings?…                           { "value": 31.5, "unit": "cm" }
 */

const tools = { caliper: { unit: 'mm', step: 0.01 }, stick: { unit: 'cm', step: 0.5 } } as const;
/** A plant takes so long where nothing else is said, ms. */
const PACE_MS = 900;
/** The tool switches itself off after so many. */
const MOST_READINGS = 200;

export function startInstrumentStandIn(): Promise<StandIn> {
  return startStandIn(answer);
}

async function answer(req: IncomingMessage, res: ServerResponse): Promise<void> {
  const url = new URL(req.url ?? '/', 'http://instrument');
  const [, kind, what] = url.pathname.split('/');
  if ((kind !== 'caliper' && kind !== 'stick') || what !== 'readings') return void res.writeHead(404).end();
  const { unit, step } = tools[kind];
  const number = (name: string, usual: number) => Number(url.searchParams.get(name) ?? usual);
  const [around, cv, pace] = [number('around', 10), number('cv', 0.25), number('pace', PACE_MS)];
  const random = seededRandom(number('seed', 1));
  res.writeHead(200, { 'content-type': 'application/x-ndjson' });
  res.flushHeaders();
  for (let i = 0; i < MOST_READINGS && !res.destroyed; i++) {
    await pause(pace);
    const value = Math.max(step, around * Math.exp(cv * normalDraw(random) - (cv * cv) / 2));
    res.write(`${JSON.stringify({ value: Number((Math.round(value / step) * step).toFixed(2)), unit })}\n`);
  }
  res.end();
}
