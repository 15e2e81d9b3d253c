import { spawn } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { Plain } from '../lib/steps.mjs';

const root = new URL('../../', import.meta.url).pathname;

/** A server in a process of its own. */
export async function startServer(databaseUrl, port) {
  const child = spawn('node', ['server/dist/main.js'], {
    cwd: root,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      KAURI_LOG: 'silent',
      KAURI_REQUESTS: '0',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const chunk of child.stdout) if (String(chunk).startsWith('ready')) break;
  return child;
}

/** A database that is being brought up again may refuse a server once or twice. */
export async function restartServer(databaseUrl, port) {
  for (let tries = 1; ; tries++) {
    const server = await startServer(databaseUrl, port);
    if (server.exitCode === null && server.pid && (await health(port))) return server;
    if (tries === 20) throw new Plain('The server did not come back.');
    await pause(500);
  }
}
const health = (port) =>
  fetch(`http://127.0.0.1:${port}/api/health`).then(
    (answer) => answer.ok,
    () => false,
  );
