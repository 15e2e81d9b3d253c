import { dayOf, dayOfYear, extraterrestrialRadiation, hargreaves, isoOf, linesOf, say } from '@kauri/core';
import { WaterReadingRow, type Programme } from '@kauri/core/contract';
import { and, between, eq } from 'drizzle-orm';
import { nursery, weatherDay } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { Refusal } from '../../http/problems';
import type { SkyDay, StandInFaultName } from '../../standins/irrigation';

/** How far back a controller is read, days. */
const MOST_DAYS = 60;
const PATIENCE_MS = 5000;

/** Talks to a nursery's irrigation controller over HTTP. */
export class ControllerLink {
  constructor(
    private readonly url: string,
    private readonly nurseryId: string,
  ) {}

  private async ask(what: string, init?: RequestInit): Promise<Response> {
    try {
      return await fetch(`${this.url}/controllers/${this.nurseryId}/${what}`, {
        ...init,
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
    } catch (cause) {
      throw new Refusal(
        503,
        'controller-silent',
        say`The irrigation controller does not answer. What was read before is kept; try again.`,
        {},
        { cause },
      );
    }
  }

  private async put(what: string, body: unknown): Promise<void> {
    await this.ask(what, { method: 'PUT', body: JSON.stringify(body) });
  }

  sendProgramme(programme: Programme): Promise<void> {
    return this.put('programme', programme);
  }

  fail(placeId: string | null, fault: StandInFaultName): Promise<void> {
    return this.put('fault', { placeId, fault });
  }

  /** Reads days of the controller's stream; a controller that lost its programme is told it again. */
  async read(
    programme: Programme,
    sky: readonly SkyDay[],
    from: string,
    to: string,
  ): Promise<WaterReadingRow[]> {
    await this.put('sky', sky);
    const path = `readings?from=${from}&to=${to}`;
    let answer = await this.ask(path);
    if (answer.status === 404) {
      await this.sendProgramme(programme);
      answer = await this.ask(path);
    }
    const rows: WaterReadingRow[] = [];
    for await (const line of linesOf(answer.body as unknown as AsyncIterable<Uint8Array>))
      rows.push(WaterReadingRow.parse(JSON.parse(line)));
    return rows;
  }
}

/** Evaporation and rain over the yard between two days, from its weather record. */
export async function skyOver(tx: Tx, nurseryId: string, from: string, to: string): Promise<SkyDay[]> {
  const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  const days = await tx
    .select()
    .from(weatherDay)
    .where(and(eq(weatherDay.nurseryId, nurseryId), between(weatherDay.day, from, to)));
  return days.map(({ day, tMinC, tMaxC, rainMm }) => ({
    day,
    et0Mm: hargreaves(tMinC, tMaxC, extraterrestrialRadiation(home.latitudeDeg, dayOfYear(dayOf(day)))),
    rainMm: rainMm ?? 0,
  }));
}

/** First day worth reading: since the programme began, not too far back. */
export function readFrom(programme: Programme, today: string): string {
  return isoOf(Math.max(dayOf(programme.from), dayOf(today) - MOST_DAYS));
}
