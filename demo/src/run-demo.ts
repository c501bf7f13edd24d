import { startWombat } from '#server/application';
import type { Clock } from '#server/platform';
import { connectPlatforms, startPlatforms } from './connect-platforms.js';
import { demoAccounts, demoPassword } from './demo-accounts.js';
import { prepareDemo } from './prepare-demo.js';

/** Somebody who can sign in. */
export interface DemoPerson {
  readonly username: string;
  readonly password: string;
  /** What they are there for, in words. */
  readonly does: string;
}

export interface RunningDemo {
  readonly address: string;
  readonly people: readonly DemoPerson[];
  /** By which it goes. */
  readonly clock: Clock;
  stop(): Promise<void>;
}

/** Wombat with the demo district and its practice platforms; what is in the database already stays as it is. */
export async function runDemo(environment: NodeJS.ProcessEnv): Promise<RunningDemo> {
  const platforms = await startPlatforms();
  const starting = startWombat(environment, async (database) => {
    await prepareDemo(database);
    await connectPlatforms(database, platforms.addresses);
  });
  starting.catch(() => platforms.stop());
  const wombat = await starting;
  return {
    address: wombat.address,
    clock: wombat.clock,
    people: demoAccounts.map(({ username, does }) => ({ username, password: demoPassword, does })),
    async stop() {
      platforms.stop();
      await wombat.stop();
    },
  };
}

/** Wombat without a school; where the database is new, its first registrar is the only one who can sign in. */
export async function runEmpty(environment: NodeJS.ProcessEnv): Promise<RunningDemo> {
  const { address, clock, firstRegistrar, stop } = await startWombat(environment);
  const does = 'the first registrar; another password is told at each start until one was used';
  return { address, clock, people: firstRegistrar ? [{ ...firstRegistrar, does }] : [], stop };
}
