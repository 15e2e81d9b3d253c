import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../..', import.meta.url));

/** Sources below a folder, without their tests. */
export function* filesIn(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else if (/\.(ts|vue)$/.test(entry.name) && !/\.(test|fixture|d)\.ts$/.test(entry.name)) yield path;
  }
}
