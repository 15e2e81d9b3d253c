import { asc, eq } from 'drizzle-orm';
import { containerType, medium, nursery, place, species } from '../../db/schema/index';
import type { Work } from '../../http/context';
import type { NurseryCall } from '../../http/context';
import type { RouteName } from '@kauri/core/contract';
import type { Handlers } from '../handlers';
import { addPlace, editPlace, toPlace } from './places';

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

export const yardHandlers: Pick<Handlers, 'catalogue' | 'addPlace' | 'editPlace'> = {
  async catalogue({ tx, nurseryId, role, server }) {
    const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
    const places = await tx
      .select()
      .from(place)
      .where(eq(place.nurseryId, nurseryId))
      .orderBy(asc(place.name));
    const kinds = await tx
      .select()
      .from(species)
      .where(eq(species.nurseryId, nurseryId))
      .orderBy(asc(species.common));
    const containers = await tx
      .select()
      .from(containerType)
      .where(eq(containerType.nurseryId, nurseryId))
      .orderBy(asc(containerType.id));
    const media = await tx
      .select()
      .from(medium)
      .where(eq(medium.nurseryId, nurseryId))
      .orderBy(asc(medium.id));
    const { id, name, placeName, latitudeDeg, longitudeDeg, elevationM, timeZone, units } = home;
    return {
      nursery: {
        id,
        name,
        placeName,
        latitudeDeg,
        longitudeDeg,
        elevationM,
        timeZone,
        units,
        today: server.today(timeZone),
      },
      role,
      places: places.map(toPlace),
      species: kinds.map(({ id, code, common, latin, values }) => ({ id, code, common, latin, values })),
      containers: containers.map(({ id, values }) => ({ id, values })),
      media: media.map(({ id, values }) => ({ id, values })),
    };
  },

  addPlace: async (call) => addPlace(await workOf(call), call.body.id, call.body.place),
  editPlace: async (call) =>
    editPlace(await workOf(call), call.params.place, call.body.version, call.body.place),
};
