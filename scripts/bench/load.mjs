import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const root = new URL('../../', import.meta.url).pathname;

/** A module of Kauri's sources, bundled as it is shipped, loaded here. */
export async function loadSource(entry) {
  const folder = mkdtempSync(join(root, 'node_modules', '.bench-'));
  try {
    const outfile = join(folder, 'source.mjs');
    await build({
      absWorkingDir: root,
      entryPoints: [entry],
      bundle: true,
      format: 'esm',
      platform: 'neutral',
      mainFields: ['module', 'main'],
      // The solver finds its WebAssembly beside its own script.
      external: ['highs'],
      outfile,
      logLevel: 'error',
    });
    return await import(outfile);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
