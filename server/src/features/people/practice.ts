import type { BodyOf, Practice } from '@kauri/core/contract';
import type { Server } from '../../http/context';

/** Whoever waited so long may ask again: what was making it is gone. */
const GIVEN_UP = '15 minutes';

export async function practiceOf({ pool }: Pick<Server, 'pool'>, personId: string): Promise<Practice> {
  const { rows } = await pool.query<Practice>(
    `select case when state = 'making' and asked_at < now() - $2::interval then 'failed' else state end as state,
       practice_nursery_id as "nurseryId" from practice where person_id = $1`,
    [personId, GIVEN_UP],
  );
  return rows[0] ?? { state: 'none', nurseryId: null };
}

/** Asks for a nursery to practise in; one that is being made is waited for. */
export async function askForPractice(
  server: Server,
  personId: string,
  { south, language }: Pick<BodyOf<'makePractice'>, 'south' | 'language'>,
): Promise<Practice> {
  const { rowCount } = await server.pool.query(
    `insert into practice (person_id, state, south, language) values ($1, 'making', $2, $4)
     on conflict (person_id) do update set state = 'making', south = excluded.south, language = excluded.language, asked_at = now()
       where practice.state <> 'making' or practice.asked_at < now() - $3::interval`,
    [personId, south, GIVEN_UP, language],
  );
  if (rowCount) server.askPractice(personId);
  return practiceOf(server, personId);
}
