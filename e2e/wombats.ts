import { once } from 'node:events';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inject } from 'vitest';
import { runDemo, runEmpty, type RunningDemo } from '#demo';
import { spawnDemo } from '../server/test/spawn-demo.js';

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
  const { address, child } = await spawnDemo(environmentOf(folder, '0'));
  const leave = async (signal: NodeJS.Signals) => {
    child.kill(signal);
    await once(child, 'exit');
  };
  return {
    address,
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
  for (const part of ['database', 'key'])
    cpSync(join(inject('demoFolder'), part), join(folder, part), { recursive: true });
  return folder;
}
