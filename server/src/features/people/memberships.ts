import type { Me } from '@kauri/core/contract';
import { inNursery } from '../../db/tenant';
import type { Server } from '../../http/context';
import type { Person } from '../../http/sessions';

const NOBODY = '00000000-0000-7000-8000-000000000000';

/** A person and the nurseries they belong to, all of them. */
export async function membershipsOf(server: Server, { id, name, email }: Person): Promise<Me> {
  const memberships = await inNursery(server.pool, { nurseryId: NOBODY, personId: id }, async (tx) => {
    const { rows } = await tx.$client.query<Me['memberships'][number]>(
      `select m.nursery_id as "nurseryId", n.name as "nurseryName", m.role
       from membership m join nursery n on n.id = m.nursery_id where m.person_id = $1 order by n.name`,
      [id],
    );
    return rows;
  });
  return { person: { id, name, email }, memberships };
}
