import { hash } from '@node-rs/argon2';
import { containersIn, startingMedia, startingSpecies, usPrices, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import type { z } from 'zod';
import type { NewNursery as NurserySchema } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import {
  containerType,
  medium,
  membership,
  nursery,
  nurseryValue,
  person,
  species,
} from '../../db/schema/index';
import { inNursery, type Tx } from '../../db/tenant';
import type { Server } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { Person } from '../../http/sessions';

type NewNursery = z.infer<typeof NurserySchema>;

/** Only one first nursery is ever made, however many ask at once. */
const SETUP_LOCK = 7_041_954;

/** A nursery with the starting species, containers and media. The transaction must already be in it. */
export async function stockNursery(tx: Tx, values: NewNursery & { practice?: boolean }): Promise<void> {
  await tx.insert(nursery).values(values);
  const nurseryId = values.id;
  await tx.insert(species).values(startingSpecies.map((s) => ({ nurseryId, id: newId(), ...s })));
  await tx
    .insert(containerType)
    .values(containersIn(values.units).map((container) => ({ nurseryId, id: newId(), values: container })));
  await tx.insert(medium).values(startingMedia.map((values) => ({ nurseryId, id: newId(), values })));
}

/** A stocked nursery with its owner. The transaction must already be in it. */
async function found(tx: Tx, values: NewNursery, ownerId: string): Promise<void> {
  await stockNursery(tx, values);
  // Money and the sizes things are sold in begin as they are usual under its units; the nursery’s own replace them.
  if (values.units === 'us')
    await tx.insert(nurseryValue).values({ nurseryId: values.id, kind: 'prices', value: usPrices });
  await tx.insert(membership).values({ nurseryId: values.id, personId: ownerId, role: 'owner' });
}

/** Makes a nursery more, of somebody who has an account. */
export function addNursery(server: Server, owner: Person, values: NewNursery): Promise<void> {
  return inNursery(server.pool, { nurseryId: values.id, personId: owner.id }, (tx) =>
    found(tx, values, owner.id),
  );
}

/** Makes the first nursery with its owner, or only the owner where it is to come from an archive. @throws Refusal when there is one already */
export async function createNursery(
  server: Server,
  { nursery: values, person: owner }: BodyOf<'setup'>,
): Promise<Person> {
  const passwordHash = await hash(owner.password);
  return inNursery(server.pool, { nurseryId: values?.id ?? newId(), personId: owner.id }, async (tx) => {
    await tx.$client.query('select pg_advisory_xact_lock($1)', [SETUP_LOCK]);
    const { rows } = await tx.$client.query<{ done: boolean }>('select is_set_up() as done');
    if (rows[0].done)
      throw new Refusal(
        409,
        'already-set-up',
        say`Kauri is already set up here. Sign in, or ask its owner for a place.`,
      );
    await tx.insert(person).values({ id: owner.id, name: owner.name, email: owner.email, passwordHash });
    if (values === null) return { id: owner.id, name: owner.name, email: owner.email };
    await found(tx, values, owner.id);
    return { id: owner.id, name: owner.name, email: owner.email };
  });
}
