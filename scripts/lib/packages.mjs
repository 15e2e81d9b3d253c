import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { Plain, run } from './steps.mjs';

const root = new URL('../../', import.meta.url).pathname;
const isRoot = process.getuid?.() === 0;

/** Installs the locked packages, unless the ones there are already of this lock. */
export async function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Plain(`Kauri needs Node 20.19 or newer; this is ${process.versions.node}.`);
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const mark = join(root, 'node_modules', '.kauri-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return 'already there';
  await run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root });
  writeFileSync(mark, lock);
  return 'installed';
}

/** A program's path, from PATH or the folders given; null if it is nowhere. */
export function findProgram(name, folders = []) {
  for (const folder of [...folders, ...(process.env.PATH ?? '').split(delimiter)]) {
    if (!folder) continue;
    const path = join(folder, name);
    try {
      accessSync(path, constants.X_OK);
      return path;
    } catch {
      // Look further.
    }
  }
  return null;
}

let updated = false;

/** Installs Debian packages when this user may; otherwise says the one command to run. */
export async function installDebian(packages, why) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  const sudo =
    !isRoot && findProgram('sudo') && (await run('sudo', ['-n', 'true'], { ok: [0, 1] })).code === 0;
  if (!findProgram('apt-get') || !(isRoot || sudo)) {
    throw new Plain(
      `${why} is needed and may not be installed from here. Run this once, then start again:\n\n  sudo ${command}\n`,
    );
  }
  const as = (args) =>
    isRoot ? run('apt-get', args, aptOptions) : run('sudo', ['-n', 'apt-get', ...args], aptOptions);
  if (!updated) await as(['update']);
  updated = true;
  await as(['install', '-y', '--no-install-recommends', ...packages]);
}

const aptOptions = { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };

/** Debian's chromium for the browser tests: its build without windows, which costs a fifth less; else the whole one. */
export async function ensureChromium() {
  const find = (name) => findProgram(name, ['/usr/bin']);
  const windowless = 'chromium-headless-shell';
  if (find(windowless)) return find(windowless);
  const whole = find('chromium');
  try {
    await installDebian([windowless], 'Chromium');
  } catch (error) {
    if (whole) return whole;
    throw error;
  }
  return find(windowless);
}
