import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const program = fileURLToPath(new URL('../demo/dist/start-demo.js', import.meta.url));

/** A Wombat of its own, started as a user would, on a data folder and a port that nobody else has. */
export interface WombatProcess {
  readonly address: string;
  readonly folder: string;
  /** What it has told the console so far. */
  printed(): string;
  stop(): Promise<void>;
  /** As when the power goes: it gets no chance to tidy up, and its data folder stays. */
  kill(): Promise<void>;
}

/** Without a school or anybody but its first registrar, whose password it prints. */
export async function startEmptyProcess(): Promise<WombatProcess & { readonly password: string }> {
  const wombat = await startDemoProcess(undefined, ['--empty']);
  const password = /registrar +password (\S+)/.exec(wombat.printed())?.[1];
  if (password === undefined) throw new Error(`Wombat printed no password: ${wombat.printed()}`);
  return { ...wombat, password };
}

export async function startDemoProcess(
  folder = mkdtempSync(join(tmpdir(), 'wombat-journey-')),
  options: readonly string[] = [],
): Promise<WombatProcess> {
  const child = spawn(process.execPath, [program, ...options], {
    env: { ...process.env, PORT: '0', WOMBAT_DATA: folder, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let printed = '';
  child.stdout!.on('data', (piece: Buffer) => (printed += piece.toString()));
  return {
    address: await addressOf(child),
    folder,
    printed: () => printed,
    async stop() {
      child.kill('SIGTERM');
      await once(child, 'exit');
      rmSync(folder, { recursive: true, force: true });
    },
    async kill() {
      child.kill('SIGKILL');
      await once(child, 'exit');
    },
  };
}

function addressOf(child: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let printed = '';
    child.stdout!.on('data', (piece: Buffer) => {
      printed += piece.toString();
      const address = /http:\/\/localhost:\d+/.exec(printed)?.[0];
      if (address) resolve(address);
    });
    child.once('exit', () => reject(new Error(`Wombat did not start. It printed: ${printed}`)));
  });
}
