import { Unfit, say, inWords } from '@kauri/core';
import type { Problem } from '@kauri/core/contract';
import type pg from 'pg';
import { ZodError } from 'zod';

/** Something the caller can be told in a sentence. `kind` is the stable end of the problem's type. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    message: string,
    readonly extra: Pick<Problem, 'fields' | 'current'> = {},
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

/** Somebody else saved it first: what stands now goes with it, and what was typed stays on the screen. */
export function staleEdit(
  what: string,
  current: unknown,
  then = say`Yours is kept on the screen; compare and save again.`,
): Refusal {
  return new Refusal(409, 'stale-edit', say`Someone changed ${what} meanwhile. ${then}`, { current });
}

const titles: Record<number, string> = inWords({
  400: 'Not understood',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'In conflict',
  413: 'Too large',
  422: 'Not taken',
  429: 'Too many tries',
  500: 'Kauri failed',
  503: 'Not available',
  507: 'No room',
});

/** What any error means to the caller; never the inside of the server. */
export function toProblem(error: unknown, requestId: string): Problem {
  const refusal = asRefusal(error);
  return {
    type: `/problems/${refusal.kind}`,
    title: titles[refusal.status] ?? say`Problem`,
    status: refusal.status,
    detail: refusal.message,
    ...refusal.extra,
    requestId,
  };
}

function asRefusal(error: unknown): Refusal {
  if (error instanceof Refusal) return error;
  if (error instanceof ZodError) {
    const fields = error.issues.map((issue) => {
      const path = issue.path.join('.');
      // A wrong type has no sentence of its own; the others are written in the contract.
      return {
        path,
        message: issue.message.endsWith('.')
          ? issue.message
          : `${path || say`What was sent`}: ${issue.message}.`,
      };
    });
    return new Refusal(422, 'invalid', fields[0]?.message ?? say`Something typed cannot be used.`, {
      fields,
    });
  }
  if (error instanceof Unfit) {
    const fields =
      error.field === undefined ? {} : { fields: [{ path: error.field, message: error.message }] };
    return new Refusal(422, 'invalid', error.message, fields);
  }
  const known =
    (error as { code?: unknown })?.code === 'ENOSPC' ? diskFull() : (fromDatabase(error) ?? fromBody(error));
  return (
    known ??
    new Refusal(500, 'failed', say`Something went wrong on the server. Nothing was saved. Try again.`)
  );
}

const takenNames: Record<string, string> = inWords({
  place_name: 'There is already a place with that name.',
  lot_code: 'There is already a lot with that code.',
  seed_lot_code: 'There is already a seed lot with that code.',
  species_code: 'There is already a species with that code.',
  person_email_unique: 'That e-mail address is already in use.',
  planting_name: 'There is already a planting with that name.',
  walk_one_under_way: 'Somebody is walking that planting: go along on that walk, or end it first.',
  hold_one_under_way: 'That lot is held already: go on with that hold, or end it first.',
  movement_reversed_once: 'That record has already been taken back.',
});

function fromDatabase(error: unknown): Refusal | null {
  const inner = (error as { cause?: unknown })?.cause ?? error;
  const { code, constraint, message } = inner as Partial<pg.DatabaseError>;
  switch (code) {
    case '23514':
      return constraint === 'balance_not_below_zero'
        ? new Refusal(
            409,
            'not-enough',
            say`There are fewer left than that. Someone may have recorded on this lot meanwhile; look at what stands now.`,
          )
        : constraint === 'parcel_not_below_zero'
          ? new Refusal(
              409,
              'not-enough',
              say`Fewer lie there than that: some were sent or taken out meanwhile. Look at what lies there now.`,
            )
          : constraint === 'parcel_aside_held'
            ? new Refusal(
                409,
                'set-aside',
                say`Fewer lie free there than that: the others are set aside for orders. Set fewer aside first, or take them from another parcel.`,
              )
            : new Refusal(422, 'invalid', say`A figure is outside what can be kept.`);
    case '23505':
      return new Refusal(409, 'taken', takenNames[constraint ?? ''] ?? say`That already exists.`);
    case '23503':
      return new Refusal(422, 'missing', say`Something this refers to is not in this nursery.`);
    case '53100':
      return diskFull();
    case '22003':
      return new Refusal(422, 'invalid', say`A number is too large to be kept.`);
    case 'ECONNREFUSED':
    case 'ECONNRESET':
    case '57P01':
    case '57P03':
    case '08006':
      return unavailable();
  }
  // Every connection is at work: the database answers, only not yet.
  if (/timeout exceeded when trying to connect/.test(String(message)))
    return new Refusal(503, 'busy', say`Kauri is very busy. Nothing was saved; try again in a moment.`);
  return /Connection terminated|Client has encountered a connection error/.test(String(message))
    ? unavailable()
    : null;
}

function diskFull(): Refusal {
  return new Refusal(
    507,
    'disk-full',
    say`The disk of the machine Kauri runs on is full. Nothing was saved; whoever runs it must make room.`,
  );
}

function unavailable(): Refusal {
  return new Refusal(
    503,
    'database-down',
    say`The database does not answer. Nothing was saved; try again in a moment.`,
  );
}

function fromBody(error: unknown): Refusal | null {
  switch ((error as { type?: string })?.type) {
    case 'entity.parse.failed':
      return new Refusal(400, 'unreadable', say`The request could not be read as JSON.`);
    case 'entity.too.large':
      return new Refusal(413, 'too-large', say`That is more than can be sent at once.`);
    case 'charset.unsupported':
    case 'encoding.unsupported':
    case 'request.aborted':
      return new Refusal(400, 'unreadable', say`The request could not be read.`);
  }
  if (error instanceof URIError) return new Refusal(400, 'unreadable', say`The address could not be read.`);
  // What the web server itself refuses: a path with a broken percent code, a file that is not there.
  const status = (error as { status?: unknown })?.status;
  if (status === 404) return new Refusal(404, 'no-such-file', say`There is no such file.`);
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Refusal(400, 'unreadable', say`The request could not be read.`);
  return null;
}
