import { say } from '@kauri/core';
import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { ArchiveManifest, type BroughtIn } from '@kauri/core/contract';
import type { Request } from 'express';
import { from as copyFrom } from 'pg-copy-streams';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';
import { note } from '../../db/journal';
import { membership, nursery } from '../../db/schema/index';
import { inNursery, type Tx } from '../../db/tenant';
import type { Server } from '../../http/context';
import { Refusal } from '../../http/problems';
import type { Person } from '../../http/sessions';
import { quoted, schemaNumber, SUMS, tenantTables } from './tables';

const GIB = 1024 ** 3;
/** Largest archive taken, and the most it may hold once unpacked. */
const MOST_BYTES = 2 * GIB;
const MOST_UNPACKED = 8 * GIB;
const MOST_MANIFEST = 64 * 1024 * 1024;

function unfit(why: string): Refusal {
  return new Refusal(422, 'not-an-archive', say`${why} Nothing was taken.`);
}

/** An archive on disk: its files by name. */
interface Opened {
  entries: Map<string, Entry>;
  read: (name: string) => Promise<Readable>;
  close: () => void;
}

/**
 * Brings a nursery in from an archive as it is sent, all or nothing; whoever brings it becomes its owner.
 * @throws Refusal with a sentence where it is no archive, is damaged, does not add up, or is here already
 */
export async function bringIn(server: Server, person: Person, req: Request): Promise<BroughtIn> {
  const folder = await mkdtemp(join(tmpdir(), 'kauri-archive-'));
  try {
    const file = join(folder, 'archive.zip');
    await receive(req, file);
    const archive = await openArchive(file);
    try {
      return await takeIn(server, person, archive);
    } finally {
      archive.close();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function receive(req: Request, file: string): Promise<void> {
  const tooLarge = () =>
    new Refusal(413, 'too-large', say`An archive may have 2 GB at most. Nothing was taken.`);
  if (Number(req.headers['content-length'] ?? 0) > MOST_BYTES) throw tooLarge();
  let bytes = 0;
  const meter = new Transform({
    transform(chunk: Buffer, _encoding, then) {
      bytes += chunk.length;
      if (bytes > MOST_BYTES) then(tooLarge());
      else then(null, chunk);
    },
  });
  await pipeline(req, meter, createWriteStream(file, { mode: 0o600 }));
}

async function openArchive(file: string): Promise<Opened> {
  const damaged = () => unfit(say`This is no archive of Kauri’s, or it was damaged on its way.`);
  let zip: ZipFile;
  try {
    zip = await promisify<string, { lazyEntries: true; autoClose: false }, ZipFile>(openZip)(file, {
      lazyEntries: true,
      autoClose: false,
    });
  } catch {
    throw damaged();
  }
  const entries = new Map<string, Entry>();
  let unpacked = 0;
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('entry', (entry: Entry) => {
        unpacked += entry.uncompressedSize;
        if (unpacked > MOST_UNPACKED)
          return reject(unfit(say`Unpacked, this archive would be larger than 8 GB.`));
        entries.set(entry.fileName, entry);
        zip.readEntry();
      });
      zip.on('end', resolve);
      zip.on('error', () => reject(damaged()));
      zip.readEntry();
    });
  } catch (error) {
    zip.close();
    throw error;
  }
  return {
    entries,
    read: async (name) => {
      const entry = entries.get(name);
      if (!entry) throw unfit(say`The archive lacks ${name}.`);
      return promisify(
        zip.openReadStream.bind(zip) as (e: Entry, then: (e: Error | null, s: Readable) => void) => void,
      )(entry);
    },
    close: () => zip.close(),
  };
}

async function bytesOf(source: Readable, most: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of source as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > most) throw unfit(say`A file of the archive is larger than it may be.`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

async function manifestOf(archive: Opened): Promise<ArchiveManifest> {
  const source = await archive.read('manifest.json');
  try {
    return ArchiveManifest.parse(JSON.parse((await bytesOf(source, MOST_MANIFEST)).toString()));
  } catch {
    throw unfit(say`The archive’s manifest cannot be read.`);
  }
}

async function takeIn(server: Server, person: Person, archive: Opened): Promise<BroughtIn> {
  const manifest = await manifestOf(archive);
  const { id, name } = manifest.nursery;
  const digests = new Map(manifest.files.map((file) => [file.name, file]));
  return inNursery(server.pool, { nurseryId: id, personId: person.id }, async (tx) => {
    const here = await schemaNumber(tx.$client);
    if (manifest.schema !== here)
      throw unfit(
        say`This archive was taken out of a Kauri ${manifest.schema < here ? say`older` : say`newer`} than this one (tables ${manifest.schema}, here ${here}). Bring it into one of its own age, bring that up to date, and take it out again.`,
      );
    await tx.$client.query("select set_config('kauri.restoring', 'on', true)");
    await makeNursery(tx, manifest);
    await readPeople(tx, archive, digests);
    let records = 0;
    for (const table of await tenantTables(tx.$client)) {
      if (table.name === 'photo') continue;
      const staged = await stage(tx, archive, digests, `tables/${table.name}.csv`, table.name, table.columns);
      await mustBeOf(tx, staged.temp, id);
      const columns = quoted(table.columns.filter((column) => !table.counted.includes(column)));
      const order = table.counted.length ? ` order by ${quoted(table.counted)}` : '';
      await tx.$client.query(
        `insert into "${table.name}" (${columns}) select ${columns} from ${staged.temp}${order}`,
      );
      records += staged.rows;
    }
    const photos = await readPhotos(tx, archive, digests, id);
    const trees = await sumUp(tx, archive, digests);
    await tx.insert(membership).values({ nurseryId: id, personId: person.id, role: 'owner' });
    await tx.$client.query("select set_config('kauri.restoring', '', true)");
    const work = { tx, nurseryId: id, personId: person.id, today: '' };
    await note(work, 'bring in from an archive', id, null, { takenAt: manifest.takenAt, records, photos });
    return { nurseryId: id, nurseryName: name, records, photos, trees };
  });
}

async function makeNursery(tx: Tx, manifest: ArchiveManifest): Promise<void> {
  const made = await tx
    .insert(nursery)
    .values(manifest.nursery)
    .onConflictDoNothing()
    .returning({ id: nursery.id });
  if (made.length === 0)
    throw new Refusal(
      409,
      'here-already',
      say`This nursery is here already. An archive goes into a Kauri that does not have it. Nothing was taken.`,
    );
}

type Digests = Map<string, ArchiveManifest['files'][number]>;

/** Reads a table of the archive into a temporary one, and compares its digest and its count of rows. */
async function stage(
  tx: Tx,
  archive: Opened,
  digests: Digests,
  file: string,
  like: string,
  columns: readonly string[],
): Promise<{ temp: string; rows: number }> {
  const temp = `"in_${like}"`;
  await tx.$client.query(
    `create temp table ${temp} on commit drop as select ${quoted(columns)} from "${like}" with no data`,
  );
  const source = await archive.read(file);
  const digest = createHash('sha256');
  const copy = tx.$client.query(
    copyFrom(`copy ${temp} (${quoted(columns)}) from stdin with (format csv, header match)`),
  );
  await pipeline(source, tap(digest), copy).catch((error: unknown) => {
    throw ofTheFile(error, file);
  });
  mustMatch(digests, file, digest.digest('hex'), copy.rowCount);
  return { temp, rows: copy.rowCount };
}

/** What cannot be unpacked, and what the database says of a table it cannot read, is about the file; all else is ours. */
function ofTheFile(error: unknown, file: string): unknown {
  const { code = '', message = '' } = error as { code?: string; message?: string };
  const isOurs = error instanceof Refusal || /^[A-Z]+$/.test(code) || /Connection terminated/.test(message);
  const isTable = code.startsWith('22');
  const isDatabase = /^[0-9A-Z]{5}$/.test(code);
  return isOurs || (isDatabase && !isTable)
    ? error
    : unfit(say`${file} cannot be read: it was changed or damaged.`);
}

const tap = (digest: ReturnType<typeof createHash>) =>
  new Transform({
    transform(chunk: Buffer, _encoding, then) {
      digest.update(chunk);
      then(null, chunk);
    },
  });

function mustMatch(digests: Digests, file: string, sha256: string, rows: number | null): void {
  const said = digests.get(file);
  if (!said || said.sha256 !== sha256 || (rows !== null && said.rows !== rows))
    throw unfit(say`${file} is not as it was taken out: it was changed or damaged.`);
}

/** Rows of another nursery in an archive are no matter of this one. */
async function mustBeOf(tx: Tx, temp: string, nurseryId: string): Promise<void> {
  const { rowCount } = await tx.$client.query(
    `select from ${temp} where nursery_id is distinct from $1 limit 1`,
    [nurseryId],
  );
  if (rowCount) throw unfit(say`The archive holds rows of another nursery.`);
}

/** Whoever wrote the records keeps their name; they have no account by it. */
async function readPeople(tx: Tx, archive: Opened, digests: Digests): Promise<void> {
  const { temp } = await stage(tx, archive, digests, 'people.csv', 'person', ['id', 'name']);
  await tx.$client.query(
    `insert into person (id, name) select id, left(name, 120) from ${temp} on conflict (id) do nothing`,
  );
}

async function readPhotos(tx: Tx, archive: Opened, digests: Digests, nurseryId: string): Promise<number> {
  const columns = ['nursery_id', 'id', 'width_px', 'height_px', 'sent_sha256', 'person_id', 'at'];
  const { temp, rows } = await stage(tx, archive, digests, 'tables/photo.csv', 'photo', columns);
  await mustBeOf(tx, temp, nurseryId);
  const ids = await tx.$client.query<{ id: string }>(`select id from ${temp} order by id`);
  for (const { id } of ids.rows) {
    const file = `photos/${id}.jpg`;
    const jpeg = await bytesOf(await archive.read(file), 32 * 1024 * 1024).catch((error: unknown) => {
      throw ofTheFile(error, file);
    });
    mustMatch(digests, file, createHash('sha256').update(jpeg).digest('hex'), null);
    await tx.$client.query(
      `insert into photo (${quoted(columns)}, jpeg) select ${quoted(columns)}, $2 from ${temp} where id = $1`,
      [id, jpeg],
    );
  }
  return rows;
}

/** Sums what stands in every account and parcel, and compares it with what the archive says stood there. */
async function sumUp(tx: Tx, archive: Opened, digests: Digests): Promise<number> {
  await tx.$client.query('select restore_sums()');
  for (const sum of SUMS) {
    const { rows } = await tx.$client.query<{ columns: string[] }>(
      `select array_agg(column_name::text order by ordinal_position) as columns from information_schema.columns where table_schema = 'public' and table_name = $1`,
      [sum],
    );
    const list = quoted(rows[0].columns);
    const { temp } = await stage(tx, archive, digests, `sums/${sum}.csv`, sum, rows[0].columns);
    const { rowCount } = await tx.$client.query(
      `(select ${list} from ${temp} except select ${list} from ${sum} where nursery_id = current_nursery())
       union all (select ${list} from ${sum} where nursery_id = current_nursery() except select ${list} from ${temp}) limit 1`,
    );
    if (rowCount) throw unfit(say`The archive’s movements do not add up to what it says stood there.`);
  }
  const { rows } = await tx.$client.query<{ trees: number }>(
    'select coalesce(sum(held), 0)::bigint as trees from balance where nursery_id = current_nursery()',
  );
  return Number(rows[0].trees);
}
