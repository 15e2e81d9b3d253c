import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { copyWhole, type Copied } from './copy';
import { copiesToDrop, copyDate, copyName } from './keptCopies';

/**
 * Makes a night's copy in a folder, and lets go of those no rule keeps; only once the new one is whole.
 * @param on the date the copy bears
 */
export async function nightlyCopy(
  databaseUrl: string,
  folder: string,
  on: string,
  bin: string | null,
): Promise<Copied & { dropped: string[] }> {
  await mkdir(folder, { recursive: true });
  const copied = await copyWhole(databaseUrl, join(folder, copyName(on)), bin);
  const dates = (await readdir(folder)).map(copyDate).filter((date) => date !== null);
  const dropped = copiesToDrop(dates, on);
  for (const date of dropped) await rm(join(folder, copyName(date)), { force: true });
  return { ...copied, dropped };
}
