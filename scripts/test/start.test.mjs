import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { freePort } from '../lib/postgres.mjs';

const root = new URL('../../', import.meta.url).pathname;
let home;
let children;

beforeEach(() => {
  home = mkdtempSync(join(tmpdir(), 'kauri-start-'));
  chmodSync(home, 0o755);
  children = [];
});
afterEach(async () => {
  for (const child of children) {
    if (child.exitCode === null && child.signalCode === null) {
      child.kill('SIGINT');
      await once(child, 'exit');
    }
  }
  stopServerLeftBehind();
  rmSync(home, { recursive: true, force: true });
});

const postmaster = () => {
  try {
    return Number(readFileSync(join(home, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]);
  } catch {
    return null;
  }
};
const runs = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};
function stopServerLeftBehind() {
  const pid = postmaster();
  if (pid && runs(pid)) process.kill(pid, 'SIGQUIT');
}

/** Starts Kauri with a home of its own, up to the line that says how to stop it, or to its end. */
async function start(args = [], env = {}) {
  const child = spawn('node', ['scripts/start.mjs', ...args], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: '', KAURI_HOME: home, KAURI_TODAY: '2026-11-24', ...env },
  });
  children.push(child);
  let output = '';
  const said = new Promise((resolve) => {
    const listen = (chunk) => {
      output += chunk;
      if (output.includes('Ctrl-C stops it')) resolve();
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.on('close', resolve);
  });
  await said;
  return { child, output: () => output, url: /Kauri is (?:already running )?at (\S+)/.exec(output)?.[1] };
}
/** Runs one of the scripts to its end, with the same home. */
async function runToEnd(script, args) {
  const child = spawn('node', [`scripts/${script}.mjs`, ...args], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: '', KAURI_HOME: home, INIT_CWD: root },
  });
  children.push(child);
  let output = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (output += chunk));
  const [code] = await once(child, 'close');
  return { code, output };
}
async function end({ child }, signal = 'SIGINT') {
  child.kill(signal);
  await once(child, 'exit');
}
const lots = async (url) => {
  const signIn = await fetch(`${url}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ email: 'wren@withybeck.example', password: 'grow-young-trees' }),
  });
  const cookie = signIn.headers.getSetCookie()[0].split(';')[0];
  const { memberships } = await signIn.json();
  const page = await fetch(`${url}/api/nurseries/${memberships[0].nurseryId}/lots?limit=500`, {
    headers: { cookie },
  });
  return (await page.json()).lots.length;
};

describe('npm start', () => {
  it('makes everything, says it step by step, and stops all it started', async () => {
    const port = await freePort();
    const first = await start(['--port', String(port)]);
    expect(first.url).toBe(`http://127.0.0.1:${port}`);
    expect(first.output()).toMatch(/· Database server on 127\.0\.0\.1 … .*s\n/);
    expect(first.output()).toContain('isla@withybeck.example');
    expect(await lots(first.url)).toBe(142);
    expect(runs(postmaster())).toBe(true);

    const second = await start(['--port', String(port)]);
    expect(second.output()).toContain(`Kauri is already running at ${first.url}`);
    expect(second.child.exitCode).toBe(0);

    await end(first);
    // PostgreSQL takes its pid file away as the last thing it does.
    expect(postmaster()).toBeNull();
    expect(readdirSync(home)).not.toContain('run.json');
    await expect(fetch(`${first.url}/api/health`)).rejects.toThrow();

    // The demo is there: it is loaded once.
    const third = await start(['--port', String(port)]);
    expect(await lots(third.url)).toBe(142);
    await end(third);
  });

  it('takes over from a start that was killed', async () => {
    const first = await start(['--empty', '--port', String(await freePort())]);
    await end(first, 'SIGKILL');
    const database = postmaster();
    expect(runs(database)).toBe(true);
    const second = await start(['--empty', '--port', String(await freePort())]);
    expect(second.output()).toContain('An earlier start was cut off; taking over.');
    expect(postmaster()).toBe(database);
    expect(await (await fetch(`${second.url}/api/door`)).json()).toMatchObject({ needsSetup: true });
    await end(second);
    expect(postmaster()).toBeNull();
  });

  it('says that a port is taken, and leaves nothing running', async () => {
    const other = createServer();
    other.listen(0, '127.0.0.1');
    await once(other, 'listening');
    const { port } = other.address();
    const taken = await start(['--port', String(port)]);
    expect(taken.output()).toContain(`Port ${port} is taken by another program. Choose one with --port.`);
    expect(taken.child.exitCode).toBe(1);
    expect(postmaster()).toBeNull();
    other.close();
  });

  it('has an empty Kauri beside the demo, and keeps what was there when begun anew', async () => {
    const empty = await start(['--empty', '--port', String(await freePort())]);
    expect(empty.output()).toContain('Open it to set up your nursery.');
    expect(await (await fetch(`${empty.url}/api/door`)).json()).toEqual({ needsSetup: true, demoPeople: [] });
    await end(empty);
    const anew = await start(['--empty', '--fresh', '--port', String(await freePort())]);
    expect(anew.output()).toMatch(/What was there is kept as database kauri_empty_before_\d{14}/);
    await end(anew);
  });

  it.each([
    [['--bogus'], /Unknown option/],
    [['--port', 'abc'], /“abc” is not a port/],
    [['--port', '70000'], /is not a port/],
  ])('says how it is used when it is asked with %j', async (args, sentence) => {
    const { child, output } = await start(args);
    expect(output()).toMatch(sentence);
    expect(output()).toContain('Use: npm start -- [--empty] [--fresh] [--port N]');
    expect(child.exitCode).toBe(1);
  });

  it('does not start on a day that does not exist', async () => {
    const { child, output } = await start(['--port', String(await freePort())], {
      KAURI_TODAY: '2026-02-29',
    });
    expect(output()).toContain('KAURI_TODAY');
    expect(child.exitCode).toBe(1);
  });
});

describe('copies', () => {
  const post = (url, path, body) =>
    fetch(`${url}/api${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: url },
      body: JSON.stringify(body),
    });
  const person = {
    id: '019aa5b0-7c00-7000-8000-000000000001',
    name: 'Ash',
    email: 'ash@testing.example',
    password: 'a long password',
  };
  const nursery = {
    id: '019aa5b0-7c00-7000-8000-000000000002',
    name: 'Testing Yard',
    placeName: 'Nowhere',
    latitudeDeg: 50,
    longitudeDeg: 0,
    elevationM: 10,
    timeZone: 'UTC',
    units: 'metric',
  };
  const healthy = async (url) => (await fetch(`${url}/api/health`).catch(() => null))?.status === 200;

  it('bring everything back after the database folder is lost; a database that died is started again', async () => {
    const first = await start(['--empty', '--port', String(await freePort())]);
    expect((await post(first.url, '/setup', { nursery, person })).status).toBe(200);

    process.kill(postmaster(), 'SIGKILL');
    await expect.poll(() => healthy(first.url), { timeout: 60_000 }).toBe(true);
    expect((await post(first.url, '/sign-in', person)).status).toBe(200);

    const file = join(home, 'copy.backup');
    const backup = await runToEnd('backup', [file, '--empty']);
    expect(backup.output).toMatch(/copy\.backup: \d+ tables, \d+ rows/);
    const running = await runToEnd('restore', [file, '--empty']);
    expect(running.output).toContain('Kauri is running. Stop it first');
    await end(first);

    rmSync(join(home, 'pg'), { recursive: true });
    writeFileSync(join(home, 'letter.txt'), 'no copy');
    const wrong = await runToEnd('restore', [join(home, 'letter.txt'), '--empty']);
    expect(wrong.code).toBe(1);
    expect(wrong.output).toContain('is no copy of Kauri’s, or it is damaged');
    const restore = await runToEnd('restore', [file, '--empty']);
    expect(restore.output).toContain('every ledger adds up');

    const again = await start(['--empty', '--port', String(await freePort())]);
    expect((await post(again.url, '/setup', { nursery, person })).status).toBe(409);
    expect((await post(again.url, '/sign-in', person)).status).toBe(200);

    // Whoever forgot theirs, and has nobody to ask, is let in from the machine.
    const link = await runToEnd('passwordLink', [' ASH@testing.example ', '--empty']);
    const secret = /#(\S{43})/.exec(link.output)[1];
    const set = await post(again.url, '/password-links/use', { secret, password: 'another long one' });
    expect(set.status).toBe(200);
    expect((await post(again.url, '/sign-in', { ...person, password: 'another long one' })).status).toBe(200);
    expect((await runToEnd('passwordLink', ['no@one.example', '--empty'])).output).toContain('Nobody here');
    await end(again);
  });
});
