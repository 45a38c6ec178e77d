import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { Stop } from './root.mjs';

/** Runs a command to its end. Rejects with its last output when it fails; `isShown` passes the output through. */
export function run(command, args, { isShown = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      stdio: ['ignore', isShown ? 'inherit' : 'pipe', isShown ? 'inherit' : 'pipe'],
      ...options,
    });
    let output = '';
    const keep = (chunk) => {
      output = (output + chunk).slice(-20_000);
    };
    child.stdout?.on('data', keep);
    child.stderr?.on('data', keep);
    child.once('error', reject);
    child.once('close', (code) =>
      code === 0
        ? resolve(output)
        : reject(
            Object.assign(new Stop(`${command} ${args.join(' ')} ended with ${code}\n${output}`), {
              output,
              code,
            }),
          ),
    );
  });
}

/**
 * Starts one of Velarium's own programs and waits until it says it is ready. The child holds a channel to us and
 * ends when it breaks, so nothing is left behind even if this process is killed.
 */
export function startProgram(file, { env, log, args = [], flags = [] }) {
  const sink = createWriteStream(log, { flags: 'a' });
  const child = spawn(
    process.execPath,
    [
      ...flags,
      '--enable-source-maps',
      '--import',
      new URL('./leave-with-parent.mjs', import.meta.url).href,
      file,
      ...args,
    ],
    {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
      // A group of its own: Ctrl+C reaches us alone, and we stop things in order.
      detached: true,
    },
  );
  let last = '';
  for (const stream of [child.stdout, child.stderr]) {
    stream.on('data', (chunk) => {
      last = (last + chunk).slice(-4000);
      sink.write(chunk);
    });
  }
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const ready = new Promise((resolve, reject) => {
    child.on('message', (message) => message === 'ready' && resolve());
    ended.then((code) => reject(new Stop(`${file} ended with ${code} before it was ready\n${last}`)));
  });
  return {
    ready,
    ended,
    pid: child.pid,
    async stop() {
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
      const timer = setTimeout(() => child.kill('SIGKILL'), 5000);
      await ended;
      clearTimeout(timer);
    },
  };
}
