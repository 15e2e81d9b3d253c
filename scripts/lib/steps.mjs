import { spawn } from 'node:child_process';

/** Runs one step, saying what it is and how long it took. */
export async function step(what, work) {
  const started = Date.now();
  process.stdout.write(`· ${what} … `);
  try {
    const answer = await work();
    process.stdout.write(`${typeof answer === 'string' ? `${answer}, ` : ''}${seconds(started)}\n`);
    return answer;
  } catch (error) {
    process.stdout.write(`failed after ${seconds(started)}\n`);
    throw error;
  }
}

function seconds(started) {
  return `${((Date.now() - started) / 1000).toFixed(1)} s`;
}

/** An error whose sentence is all the reader needs; scripts print it without a stack. */
export class Plain extends Error {}

/** Runs a command to its end. Its output is kept and shown only if it fails, unless `show` is set. */
export function run(command, args, { show = false, ok = [0], ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      stdio: ['ignore', show ? 'inherit' : 'pipe', show ? 'inherit' : 'pipe'],
      ...options,
    });
    let output = '';
    child.stdout?.on('data', (chunk) => (output += chunk));
    child.stderr?.on('data', (chunk) => (output += chunk));
    child.on('error', (error) => reject(new Plain(`${command} could not be run: ${error.message}`)));
    child.on('close', (code) => {
      if (ok.includes(code)) resolve({ code, output });
      else
        reject(
          new Plain(
            `${command} ${args.join(' ')} ended with ${code}\n${output.split('\n').slice(-40).join('\n')}`,
          ),
        );
    });
  });
}

/** Prints a failure the way its reader can use it and ends with 1. */
export function fail(error) {
  console.error(error instanceof Plain ? `\n${error.message}` : error);
  process.exitCode = 1;
}
