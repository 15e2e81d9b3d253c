import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './steps.mjs';

const root = new URL('../../', import.meta.url).pathname;

/** Builds interface and server, unless nothing they are made from has changed since. */
export async function ensureBuilt() {
  const mark = join(root, 'server/dist/.built-from');
  const inputs = fingerprint([
    'core/src',
    'core/languages',
    'web',
    'server/src',
    'package-lock.json',
    'scripts/lib/build.mjs',
  ]);
  if (
    existsSync(mark) &&
    readFileSync(mark, 'utf8') === inputs &&
    existsSync(join(root, 'web/dist/index.html'))
  )
    return 'already built';
  await Promise.all([
    buildServer(),
    run('npx', ['vite', 'build', 'web', '--logLevel', 'warn'], { cwd: root }),
  ]);
  writeFileSync(mark, inputs);
  return 'built';
}

export async function buildServer() {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: [
      'server/src/main.ts',
      'server/src/start.ts',
      'server/src/jobs/todayThread.ts',
      'server/src/jobs/seasonThread.ts',
      'server/src/jobs/practiceThread.ts',
    ],
    outdir: 'server/dist',
    bundle: true,
    splitting: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    // Packages are loaded as installed; only Kauri's own sources are bundled.
    plugins: [
      {
        name: 'packages',
        setup: (b) =>
          b.onResolve({ filter: /^[^./]/ }, ({ path }) =>
            path.startsWith('@kauri/') || path.startsWith('/') ? undefined : { path, external: true },
          ),
      },
    ],
    logLevel: 'warning',
  });
  cpSync(join(root, 'server/src/db/migrations'), join(root, 'server/dist/migrations'), { recursive: true });
  cpSync(join(root, 'core/languages'), join(root, 'server/dist/languages'), { recursive: true });
}

/** A digest of names, sizes and times: enough to tell whether to build again. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    const info = statSync(path);
    if (info.isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (name !== 'dist' && name !== 'node_modules') visit(join(path, name));
    } else hash.update(`${path} ${info.size} ${info.mtimeMs}\n`);
  };
  for (const path of paths) visit(join(root, path));
  return hash.digest('hex');
}
