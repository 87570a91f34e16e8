import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';

/** Starts the built application on a port of its own. */
export async function startServer(port: number): Promise<{ url: string; stop: () => Promise<void> }> {
  const child: ChildProcess = spawn('node', ['bin/serve.mjs'], {
    env: { ...process.env, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    child.stdout?.once('data', () => resolve());
    child.once('exit', () =>
      reject(new Error('The server ended before it was ready. Run npm run build first.')),
    );
  });
  return {
    url: `http://localhost:${port}`,
    stop: async () => {
      child.kill();
      await once(child, 'exit');
    },
  };
}
