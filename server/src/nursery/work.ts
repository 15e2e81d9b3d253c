import type { RouteName } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import { nursery } from '../db/schema/index';
import type { NurseryCall, Work } from '../http/context';

/** The work a call asks for, with today's date where the nursery stands. */
export async function workOf<N extends RouteName>({
  server,
  tx,
  nurseryId,
  person,
}: NurseryCall<N>): Promise<Work> {
  const [row] = await tx
    .select({ timeZone: nursery.timeZone })
    .from(nursery)
    .where(eq(nursery.id, nurseryId));
  return { tx, nurseryId, personId: person.id, today: server.today(row.timeZone) };
}
