import { hash, verify } from '@node-rs/argon2';
import type pg from 'pg';
import { Refusal } from '../../http/problems';
import { digestOf } from '../../http/sessions';

type Db = Pick<pg.Pool, 'query'>;
const LINK_HOURS = 24;

/** A hash to check against when nobody has the address, so that the answer takes as long either way. */
const decoy = hash('no one has this password');

/** Whether a password is right; as slow where there is none to compare it with. */
export async function isPassword(kept: string | null | undefined, typed: string): Promise<boolean> {
  const right = await verify(kept ?? (await decoy), typed);
  return right && kept != null;
}

/** @throws Refusal 401 when it is not their password */
export async function mustBePassword(db: Db, personId: string, typed: string, path: string): Promise<void> {
  const { rows } = await db.query<{ hash: string }>(
    'select password_hash as hash from person where id = $1',
    [personId],
  );
  if (await isPassword(rows[0]?.hash, typed)) return;
  const message = 'That is not your password.';
  throw new Refusal(401, 'wrong-password', message, { fields: [{ path, message }] });
}

export async function keepPassword(db: Db, personId: string, password: string): Promise<void> {
  await db.query('update person set password_hash = $2 where id = $1', [personId, await hash(password)]);
}

/** Makes a link by which a person sets a new password, once, within a day; one made before ends. */
export async function makePasswordLink(db: Db, personId: string, secret: string): Promise<void> {
  await db.query(
    `insert into password_link (person_id, token_hash, ends_at) values ($1, $2, now() + make_interval(hours => ${LINK_HOURS}))
     on conflict (person_id) do update set token_hash = excluded.token_hash, ends_at = excluded.ends_at`,
    [personId, digestOf(secret)],
  );
}

/** @throws Refusal 404 when the link was used, replaced or has run out */
export async function whoseLink(
  db: Db,
  secret: string,
): Promise<{ id: string; name: string; email: string }> {
  const { rows } = await db.query<{ id: string; name: string; email: string }>(
    'select p.id, p.name, p.email from password_link l join person p on p.id = l.person_id where l.token_hash = $1 and l.ends_at > now()',
    [digestOf(secret)],
  );
  if (!rows[0]) throw noLink();
  return rows[0];
}

function noLink(): Refusal {
  return new Refusal(
    404,
    'no-such-link',
    'This link was used already, was replaced by a newer one, or is older than a day. Ask for another.',
  );
}

/** Sets the password a link is for, and ends whatever the old one opened, all in one. The link is used up. */
export async function setByLink(db: Db, secret: string, password: string): Promise<string> {
  await whoseLink(db, secret);
  const { rows } = await db.query<{ person_id: string }>(
    `with used as (delete from password_link where token_hash = $1 and ends_at > now() returning person_id),
       changed as (update person set password_hash = $2 from used where id = used.person_id),
       factor as (delete from second_factor f using used where f.person_id = used.person_id),
       sessions as (delete from session s using used where s.person_id = used.person_id)
     select person_id from used`,
    [digestOf(secret), await hash(password)],
  );
  if (!rows[0]) throw noLink();
  return rows[0].person_id;
}
