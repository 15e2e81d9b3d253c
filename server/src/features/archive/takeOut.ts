import { createHash, type Hash } from 'node:crypto';
import { pipeline, Readable, Transform } from 'node:stream';
import { pipeline as piped } from 'node:stream/promises';
import { yardToGeoJson, type SitePlan } from '@kauri/core';
import type { ArchiveManifest } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import { to as copyTo } from 'pg-copy-streams';
import { ZipFile } from 'yazl';
import { nursery } from '../../db/schema/index';
import type { NurseryCall } from '../../http/context';
import { readValue } from '../../nursery/values';
import { catalogueOf } from '../yard/catalogue';
import { PERSON_COLUMNS, quoted, schemaNumber, SUMS, tenantTables } from './tables';

const README = `This is a nursery of Kauri, whole, in open files.

manifest.json     what is in here, and a SHA-256 digest of each file
plan.geojson      the yard (RFC 7946)
people.csv        who wrote the records: ids and names, no e-mail addresses or passwords
tables/*.csv      every table (RFC 4180, UTF-8): an empty cell is nothing, "" is an empty text
sums/*.csv        what stood in each account and parcel, to be compared with
photos/*.jpg      photos, named by their id

Bring it into another Kauri under "Records in and out". Cells are as they were typed: a spreadsheet may take one that
begins with = for a formula.
`;

/** Sends the whole nursery as one archive, as it stood at one moment, while it is being read. */
export async function takeOut({ tx, nurseryId, res }: NurseryCall<'takeOut'>): Promise<void> {
  const client = tx.$client;
  const [home] = await tx.select().from(nursery).where(eq(nursery.id, nurseryId));
  const { createdAt: _, ...values } = home;
  const files: ArchiveManifest['files'] = [];
  const zip = new ZipFile();
  const id = client.escapeLiteral(nurseryId);

  /** Adds a file; what makes it is asked for when its turn comes, so that one is under way at a time. */
  const add = (name: string, open: () => Promise<Readable> | Readable, rowsOf?: () => number) =>
    zip.addReadStreamLazy(name, { compress: !name.endsWith('.jpg') }, (then) => {
      Promise.resolve()
        .then(open)
        .then(
          (source) => {
            const digest = createHash('sha256');
            const out = hashing(digest, () =>
              files.push({ name, sha256: digest.digest('hex'), rows: rowsOf?.() ?? null }),
            );
            pipeline(source, out, () => undefined);
            then(null, out);
          },
          (error: unknown) => then(error as Error, null as never),
        );
    });
  const addTable = (name: string, select: string) => {
    const copy = copyTo(`copy (${select}) to stdout with (format csv, header)`);
    add(
      name,
      () => client.query(copy),
      () => copy.rowCount,
    );
  };

  const tables = await tenantTables(client);
  add('README.txt', () => Readable.from([Buffer.from(README)]));
  for (const { name, columns, key } of tables) {
    const shown = columns.filter((column) => column !== 'jpeg');
    addTable(
      `tables/${name}.csv`,
      `select ${quoted(shown)} from "${name}" where nursery_id = ${id} order by ${quoted(key)}`,
    );
  }
  for (const sum of SUMS)
    addTable(`sums/${sum}.csv`, `select * from ${sum} where nursery_id = ${id} order by 1, 2, 3`);
  const named = tables.flatMap(({ name, columns }) =>
    columns
      .filter((column) => PERSON_COLUMNS.includes(column))
      .map((column) => `select "${column}" from "${name}" where nursery_id = ${id}`),
  );
  addTable('people.csv', `select id, name from person where id in (${named.join(' union ')}) order by id`);
  add('plan.geojson', async () => {
    const site = (await readValue({ tx, nurseryId }, 'site')).value as SitePlan;
    const { places } = await catalogueOf(tx, nurseryId);
    const plan = yardToGeoJson(
      site.elements,
      places.map(({ place }) => place),
      home,
    );
    return Readable.from([Buffer.from(JSON.stringify(plan, null, 1))]);
  });
  const photos = await client.query<{ id: string }>(
    'select id from photo where nursery_id = $1 order by id',
    [nurseryId],
  );
  for (const photo of photos.rows)
    add(`photos/${photo.id}.jpg`, async () => {
      const { rows } = await client.query<{ jpeg: Buffer }>(
        'select jpeg from photo where nursery_id = $1 and id = $2',
        [nurseryId, photo.id],
      );
      return Readable.from([rows[0].jpeg]);
    });
  const schema = await schemaNumber(client);
  zip.addReadStreamLazy('manifest.json', (then) => {
    const manifest: ArchiveManifest = {
      format: 'Kauri archive',
      version: 1,
      schema,
      takenAt: new Date().toISOString(),
      nursery: values,
      files,
    };
    then(null, Readable.from([Buffer.from(JSON.stringify(manifest, null, 1))]));
  });
  zip.end();
  const name = `${home.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.kauri.zip`;
  res.status(200).type('application/zip').attachment(name);
  // The zip says that something broke on itself; a stream that failed must not look like one that ended.
  zip.on('error', (error: Error) => res.destroy(error));
  await piped(zip.outputStream, res);
}

function hashing(digest: Hash, done: () => void): Transform {
  return new Transform({
    transform(chunk: Buffer, _encoding, then) {
      digest.update(chunk);
      then(null, chunk);
    },
    flush(then) {
      done();
      then();
    },
  });
}
