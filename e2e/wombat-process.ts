import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inject } from 'vitest';

const program = fileURLToPath(new URL('../demo/dist/start-demo.js', import.meta.url));

/** A Wombat of its own, started as a user would, on a data folder and a port that nobody else has. */
export interface WombatProcess {
  readonly address: string;
  readonly folder: string;
  /** What it has told the console so far. */
  printed(): string;
  /** Its data folder stays. */
  end(): Promise<void>;
  /** Its data folder goes too. */
  stop(): Promise<void>;
  /** As when the power goes: it gets no chance to tidy up, and its data folder stays. */
  kill(): Promise<void>;
}

/** With the demo district as it is on its first day, or as a folder holds it. */
export function startDemoProcess(folder = copyOfDemo()): Promise<WombatProcess> {
  return startWombat(folder);
}

/** Without a school or anybody but its first registrar, whose password it prints. */
export async function startEmptyProcess(): Promise<WombatProcess & { readonly password: string }> {
  const wombat = await startWombat(newFolder(), ['--empty']);
  const password = /registrar +password (\S+)/.exec(wombat.printed())?.[1];
  if (password === undefined) throw new Error(`Wombat printed no password: ${wombat.printed()}`);
  return { ...wombat, password };
}

/** On a port that nobody else has, or on one that it had before. */
export async function startWombat(
  folder = newFolder(),
  options: readonly string[] = [],
  port = '0',
): Promise<WombatProcess> {
  const child = spawn(process.execPath, [program, ...options], {
    env: { ...process.env, PORT: port, WOMBAT_DATA: folder, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let printed = '';
  child.stdout.on('data', (piece: Buffer) => (printed += piece.toString()));
  const leave = async (signal: NodeJS.Signals) => {
    child.kill(signal);
    await once(child, 'exit');
  };
  return {
    address: await addressOf(child, () => printed),
    folder,
    printed: () => printed,
    end: () => leave('SIGTERM'),
    async stop() {
      await leave('SIGTERM');
      rmSync(folder, { recursive: true, force: true });
    },
    kill: () => leave('SIGKILL'),
  };
}

function newFolder(): string {
  return mkdtempSync(join(tmpdir(), 'wombat-journey-'));
}

function copyOfDemo(): string {
  const folder = newFolder();
  cpSync(join(inject('demoFolder'), 'database'), join(folder, 'database'), { recursive: true });
  return folder;
}

function addressOf(child: ChildProcess, printed: () => string): Promise<string> {
  return new Promise((resolve, reject) => {
    child.stdout!.on('data', () => {
      const address = /http:\/\/localhost:\d+/.exec(printed())?.[0];
      if (address) resolve(address);
    });
    child.once('exit', () => reject(new Error(`Wombat did not start. It printed: ${printed()}`)));
  });
}
