import type { archiveRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { Server } from '../../http/context';
import type { Person } from '../../http/sessions';
import { membershipsOf } from '../people/memberships';
import { bringIn } from './bringIn';
import { takeOut } from './takeOut';

/** @throws Refusal unless they own a nursery here, or are alone here and have none yet */
async function mustBeAtHome(server: Server, person: Person): Promise<void> {
  const { memberships } = await membershipsOf(server, person);
  if (memberships.some(({ role }) => role === 'owner')) return;
  const { rows } = await server.pool.query<{ alone: boolean }>(
    'select count(*) = 1 as alone from person where password_hash is not null',
  );
  if (!rows[0].alone || memberships.length)
    throw new Refusal(403, 'role', 'A nursery is brought in by somebody who owns one here.');
}

export const archiveHandlers: HandlersOf<typeof archiveRoutes> = {
  async takeOut(call) {
    await takeOut(call);
    return '';
  },
  async bringIn({ server, person, req }) {
    await mustBeAtHome(server, person!);
    const brought = await bringIn(server, person!, req);
    server.askToday(brought.nurseryId);
    return brought;
  },
};
