import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';

/** Starts the built application on a free port of its own. */
export async function startServer(): Promise<{ url: string; stop: () => Promise<void> }> {
  const child: ChildProcess = spawn('node', ['bin/serve.mjs'], {
    env: { ...process.env, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout?.once('data', (told: Buffer) => resolve(/http:\S+/.exec(told.toString())?.[0] ?? ''));
    child.once('exit', () =>
      reject(new Error('The server ended before it was ready. Run npm run build first.')),
    );
  });
  return {
    url,
    stop: async () => {
      // One that fell over has told of its end already.
      if (child.exitCode !== null || child.signalCode !== null) return;
      child.kill();
      await once(child, 'exit');
    },
  };
}
