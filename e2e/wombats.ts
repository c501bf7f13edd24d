import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inject } from 'vitest';
import { runDemo, runEmpty, type RunningDemo } from '#demo';

/** A Wombat of its own, on a data folder and a port that nobody else has. */
export interface Wombat {
  readonly address: string;
  readonly folder: string;
  /** Its data folder stays. */
  end(): Promise<void>;
  /** Its data folder goes with it. */
  stop(): Promise<void>;
}

/** One in a process of its own, started as a user would. */
export interface WombatProcess extends Wombat {
  /** As when the power goes: it gets no chance to tidy up, and its data folder stays. */
  kill(): Promise<void>;
}

/** With the demo district as it is on its first day, or as a folder holds it; on the port that it had before, if any. */
export function startDemo(folder = copyOfDemo(), port = '0'): Promise<Wombat & RunningDemo> {
  return startHere(runDemo, folder, port);
}

/** Without a school or anybody but its first registrar. */
export function startEmpty(): Promise<Wombat & RunningDemo> {
  return startHere(runEmpty, newFolder(), '0');
}

/** As `startDemo`, in a process of its own. */
export async function startDemoProcess(folder = copyOfDemo()): Promise<WombatProcess> {
  const program = fileURLToPath(new URL('../demo/dist/start-demo.js', import.meta.url));
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, ...environmentOf(folder, '0') },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const leave = async (signal: NodeJS.Signals) => {
    child.kill(signal);
    await once(child, 'exit');
  };
  return {
    address: await addressOf(child),
    folder,
    end: () => leave('SIGTERM'),
    async stop() {
      await leave('SIGTERM');
      remove(folder);
    },
    kill: () => leave('SIGKILL'),
  };
}

/** In this process, so that what one journey has loaded and made fast serves the next. */
async function startHere(run: typeof runDemo, folder: string, port: string): Promise<Wombat & RunningDemo> {
  const wombat = await run(environmentOf(folder, port));
  return {
    ...wombat,
    folder,
    end: () => wombat.stop(),
    async stop() {
      await wombat.stop();
      remove(folder);
    },
  };
}

const environmentOf = (folder: string, port: string) => ({ PORT: port, WOMBAT_DATA: folder, DATABASE_URL: '' });

const newFolder = () => mkdtempSync(join(tmpdir(), 'wombat-journey-'));

const remove = (folder: string) => rmSync(folder, { recursive: true, force: true });

function copyOfDemo(): string {
  const folder = newFolder();
  cpSync(join(inject('demoFolder'), 'database'), join(folder, 'database'), { recursive: true });
  return folder;
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
