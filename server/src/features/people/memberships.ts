import { say } from '@kauri/core';
import type { Me } from '@kauri/core/contract';
import { inNursery } from '../../db/tenant';
import type { Server } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { Person } from '../../http/sessions';

const NOBODY = '00000000-0000-7000-8000-000000000000';

/** A person and the nurseries they belong to, all of them. */
export async function membershipsOf(server: Server, { id, name, email }: Person): Promise<Me> {
  const memberships = await inNursery(server.pool, { nurseryId: NOBODY, personId: id }, async (tx) => {
    const { rows } = await tx.$client.query<Me['memberships'][number]>(
      `select m.nursery_id as "nurseryId", n.name as "nurseryName", m.role, n.language, n.practice
       from membership m join nursery n on n.id = m.nursery_id where m.person_id = $1 order by n.practice, n.name`,
      [id],
    );
    return rows;
  });
  return { person: { id, name, email }, memberships };
}

/** @throws Refusal unless they own a nursery here, or are alone here and have none yet: others are not to fill the house */
export async function mustBeAtHome(server: Server, person: Person): Promise<void> {
  const { memberships } = await membershipsOf(server, person);
  if (memberships.some(({ role }) => role === 'owner')) return;
  const real = memberships.filter(({ practice }) => !practice);
  const { rows } = await server.pool.query<{ alone: boolean }>(
    'select count(*) = 1 as alone from person where password_hash is not null',
  );
  if (!rows[0].alone || real.length)
    throw new Refusal(403, 'role', say`A nursery is set up or brought in by somebody who owns one here.`);
}
