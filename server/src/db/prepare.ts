import { createHmac } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';

/** The role the server works as. It owns nothing and cannot bypass row-level security. */
const APP_ROLE = 'kauri_app';
/** Any fixed number: servers starting together wait for one another here. */
const PREPARE_LOCK = 7_041_953;

const addTo = [
  'movement',
  'journal',
  'bed_design_version',
  'medium_stock',
  'place_check',
  'seed_move',
  'photo',
];
const readOnly = ['balance', 'parcel_held', 'demo_person'];
const change = [
  'nursery',
  'person',
  'practice',
  'invite',
  'species',
  'medium',
  'container_type',
  'nursery_value',
  'bed_design',
  'water_reading',
  'seed_lot',
  'treatment',
  'stock_bed',
  'layer',
  'seed_record',
  'lot',
  'observation',
  'parcel',
  'sending',
  'sending_return',
  'store_look',
  'planting',
  'arrival',
  'table_taken',
  'hold',
  'hold_step',
  'planted_part',
  'walk',
  'act_mark',
  'station',
  'station_reading',
  'receipt',
];
const remove = [
  'membership',
  'password_link',
  'second_factor',
  'session',
  'sign_in_try',
  'weather_day',
  'place',
  'stage',
  'calendar_token',
  'lot_asks',
  'nursery_today',
  'tree_order',
  'parcel_aside',
  'season_proposal',
  'walk_tree',
];

/**
 * Brings a database up to date and makes the role the server works as.
 * @param ownerUrl a connection that may create tables and, unless row-level security binds it itself, roles
 * @returns the connection string the server works with
 * @throws Error with a sentence when the server would be able to bypass row-level security
 */
export async function prepareDatabase(ownerUrl: string, migrationsFolder: string): Promise<string> {
  const owner = new pg.Client({ connectionString: ownerUrl });
  await owner.connect();
  try {
    await owner.query('select pg_advisory_lock($1)', [PREPARE_LOCK]);
    await migrate(drizzle(owner), { migrationsFolder });
    return await grantApp(owner, ownerUrl);
  } finally {
    await owner.end();
  }
}

async function grantApp(owner: pg.Client, ownerUrl: string): Promise<string> {
  const { rows } = await owner.query<{ name: string; super: boolean; bypass: boolean; may_create: boolean }>(
    'select rolname as name, rolsuper as super, rolbypassrls as bypass, rolcreaterole as may_create from pg_roles where rolname = current_user',
  );
  const me = rows[0];
  if (!me.super && !me.may_create) {
    if (me.bypass)
      throw new Error(
        `The database role “${me.name}” bypasses row-level security and may not create another. Use a role without BYPASSRLS.`,
      );
    // Row-level security is forced on every table, so an ordinary owner is bound by it too.
    return ownerUrl;
  }
  const url = new URL(ownerUrl);
  const secret = decodeURIComponent(url.password) || ownerUrl;
  const password = createHmac('sha256', secret).update(APP_ROLE).digest('hex');
  await keepRole(owner, password);
  await owner.query(`grant usage on schema public to ${APP_ROLE}`);
  await owner.query(`grant select on ${readOnly.join(', ')} to ${APP_ROLE}`);
  await owner.query(`grant select, insert on ${addTo.join(', ')} to ${APP_ROLE}`);
  await owner.query(`grant select, insert, update on ${change.join(', ')} to ${APP_ROLE}`);
  await owner.query(`grant select, insert, update, delete on ${remove.join(', ')} to ${APP_ROLE}`);
  url.username = APP_ROLE;
  url.password = password;
  return url.toString();
}

/** What PostgreSQL answers when another server makes or changes the same role at that moment. */
const ROLE_RACES = new Set(['XX000', '42710', '23505']);
const MOST_TRIES = 40;

/**
 * Makes the role, or sets it as it must be. Roles belong to the whole cluster, and the lock above to one database:
 * servers starting on two databases of a cluster may come here at once, and whoever loses asks again.
 */
async function keepRole(owner: pg.Client, password: string): Promise<void> {
  for (let tries = 1; ; tries++) {
    const exists = await owner.query('select 1 from pg_roles where rolname = $1', [APP_ROLE]);
    const verb = exists.rowCount ? 'alter' : 'create';
    try {
      await owner.query(
        `${verb} role ${APP_ROLE} login nosuperuser nocreaterole nocreatedb nobypassrls password '${password}'`,
      );
      return;
    } catch (error) {
      if (tries === MOST_TRIES || !ROLE_RACES.has((error as { code?: string }).code ?? '')) throw error;
      await pause(25 * tries);
    }
  }
}
