import { say } from '@kauri/core';
import { randomInt } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import type pg from 'pg';
import { Refusal } from '../../http/problems';
import { digestOf, type Person } from '../../http/sessions';

/** A code holds for half a minute (RFC 6238, 4); one step early or late is taken for clocks that differ. */
const STEP_S = 30;
const WINDOW = 1;
const RECOVERY_CODES = 10;
/** Letters and digits that are not taken for one another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const RECOVERY_LETTERS = 12;

interface Factor {
  secret: string;
  in_force_since: Date | null;
  last_step: number;
  recovery_hashes: string[];
}

type Db = Pick<pg.Pool, 'query'>;

async function factorOf(db: Db, personId: string): Promise<Factor | null> {
  const { rows } = await db.query<Factor>(
    'select secret, in_force_since, last_step, recovery_hashes from second_factor where person_id = $1',
    [personId],
  );
  return rows[0] ?? null;
}

/** Whether somebody has a second factor in force, and how many recovery codes they have left. */
export async function factorState(
  db: Db,
  personId: string,
): Promise<{ secondFactor: boolean; recoveryLeft: number }> {
  const factor = await factorOf(db, personId);
  const inForce = factor?.in_force_since != null;
  return { secondFactor: inForce, recoveryLeft: inForce ? factor.recovery_hashes.length : 0 };
}

const authenticator = (secret: string, label: string) =>
  new TOTP({ issuer: 'Kauri', label, secret: Secret.fromBase32(secret), period: STEP_S });

/** A new secret, not in force before a code of it was given. @throws Refusal where one is in force already */
export async function offerFactor(db: Db, person: Person): Promise<{ secret: string; uri: string }> {
  const secret = new Secret({ size: 20 }).base32;
  const { rowCount } = await db.query(
    `insert into second_factor (person_id, secret, recovery_hashes) values ($1, $2, '{}')
     on conflict (person_id) do update set secret = excluded.secret, last_step = 0 where second_factor.in_force_since is null`,
    [person.id, secret],
  );
  if (!rowCount)
    throw new Refusal(409, 'second-factor-on', say`A second factor is in force already. End it first.`);
  return { secret, uri: authenticator(secret, person.email).toString() };
}

/** The time step of a code that is right now and was not used before; null otherwise. */
function stepOf(factor: Factor, code: string): number | null {
  const digits = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(digits)) return null;
  const delta = authenticator(factor.secret, '').validate({ token: digits, window: WINDOW });
  if (delta === null) return null;
  const step = Math.floor(Date.now() / 1000 / STEP_S) + delta;
  return step > Number(factor.last_step) ? step : null;
}

/** Takes a step once, however many ask at the same moment. */
async function claimStep(db: Db, personId: string, step: number): Promise<boolean> {
  const { rowCount } = await db.query(
    'update second_factor set last_step = $2 where person_id = $1 and last_step < $2',
    [personId, step],
  );
  return rowCount === 1;
}

function wrongCode(): Refusal {
  return new Refusal(
    401,
    'wrong-code',
    say`That code is not right, or was used already. Wait for the next one, and see that the device’s clock is right.`,
    { fields: [{ path: 'code', message: say`That code is not right, or was used already.` }] },
  );
}

const readCode = (typed: string) => typed.toUpperCase().replace(/[^A-Z0-9]/g, '');

function recoveryCode(): string {
  const letters = Array.from({ length: RECOVERY_LETTERS }, () => ALPHABET[randomInt(ALPHABET.length)]).join(
    '',
  );
  return letters.replace(/(.{4})(?=.)/g, '$1-');
}

/** Puts the second factor in force. @returns recovery codes, of which only digests are kept */
export async function confirmFactor(db: Db, personId: string, code: string): Promise<string[]> {
  const factor = await factorOf(db, personId);
  if (!factor || factor.in_force_since)
    throw new Refusal(409, 'no-second-factor', say`There is no second factor to put in force. Begin again.`);
  const step = stepOf(factor, code);
  if (step === null || !(await claimStep(db, personId, step))) throw wrongCode();
  const codes = Array.from({ length: RECOVERY_CODES }, recoveryCode);
  await db.query(
    'update second_factor set in_force_since = now(), recovery_hashes = $2 where person_id = $1',
    [personId, codes.map((c) => digestOf(readCode(c)))],
  );
  return codes;
}

export async function dropFactor(db: Db, personId: string): Promise<void> {
  await db.query('delete from second_factor where person_id = $1', [personId]);
}

/**
 * Lets somebody with a right password in, if they have no second factor or give a code of it; a recovery
 * code is used up.
 * @throws Refusal 401 `code-needed` where none was given, `wrong-code` where it is not right
 */
export async function mustPassFactor(db: Db, personId: string, code: string | undefined): Promise<void> {
  const factor = await factorOf(db, personId);
  if (!factor?.in_force_since) return;
  if (!code)
    throw new Refusal(
      401,
      'code-needed',
      say`Type the code that your authenticator shows, or a recovery code.`,
    );
  const step = stepOf(factor, code);
  if (step !== null && (await claimStep(db, personId, step))) return;
  const { rowCount } = await db.query(
    'update second_factor set recovery_hashes = array_remove(recovery_hashes, $2) where person_id = $1 and $2 = any(recovery_hashes)',
    [personId, digestOf(readCode(code))],
  );
  if (!rowCount) throw wrongCode();
}
