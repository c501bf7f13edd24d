import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const program = fileURLToPath(new URL('../../demo/dist/start-demo.js', import.meta.url));

/** The demo in a process of its own, as a user starts it, once it says where it is. */
export async function spawnDemo(
  environment: Readonly<Record<string, string>>,
): Promise<{ readonly address: string; readonly child: ChildProcess }> {
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise<string>((resolve, reject) => {
    let printed = '';
    child.stdout.on('data', (piece: Buffer) => {
      printed += piece.toString();
      const told = /http:\/\/localhost:\d+/.exec(printed)?.[0];
      if (told) resolve(told);
    });
    child.once('exit', () => reject(new Error(`Wombat did not start. It printed: ${printed}`)));
  });
  return { address, child };
}
