import type { Server } from 'node:http';
import { createServer, type AddressInfo } from 'node:net';
import { eq } from 'drizzle-orm';
import { makeFirstRegistrar, type FirstRegistrar } from '#server/people';
import { Clock, makeSeed, openDatabase, tables, type OpenDatabase } from '#server/platform';
import { readConfigurationOrThrow } from './configuration.js';
import { createApplication } from './create-application.js';

/** How long answers under way may take once the server is told to stop, in milliseconds. */
const patience = 3000;

export interface RunningWombat {
  readonly address: string;
  /** Who can sign in to a Wombat that was empty until now; null otherwise. */
  readonly firstRegistrar: FirstRegistrar | null;
  /** By which it goes. */
  readonly clock: Clock;
  stop(): Promise<void>;
}

/** Opens the database that the environment names, lets `prepare` look at it first, and listens. */
export async function startWombat(
  environment: NodeJS.ProcessEnv,
  prepare: (database: OpenDatabase) => Promise<void> = async () => undefined,
): Promise<RunningWombat> {
  const { port, pauseMinutes, database: source } = readConfigurationOrThrow(environment);
  if (source.kind === 'folder' && source.seedFile) await makeSeed(source.seedFile);
  await refuseTakenPort(port);
  const database = await openDatabase(source);
  try {
    await prepare(database);
    const firstRegistrar = await makeFirstRegistrar(database);
    const clock = await districtClock(database);
    const application = await createApplication(database, clock, pauseMinutes);
    const server: Server = await application.listen(port, '127.0.0.1');
    return {
      address: `http://localhost:${(server.address() as AddressInfo).port}`,
      firstRegistrar,
      clock,
      async stop() {
        // A browser keeps connections that it has not used yet; they would hold the door open for good.
        const impatience = setTimeout(() => server.closeAllConnections(), patience);
        await application.close();
        clearTimeout(impatience);
        await database.close();
      },
    };
  } catch (error) {
    await database.close();
    throw error;
  }
}

/** Before anything is made, so that a password that is told only once is never made for nothing. @throws EADDRINUSE */
async function refuseTakenPort(port: number): Promise<void> {
  const probe = createServer();
  await new Promise<void>((resolve, reject) => {
    probe.once('error', reject);
    probe.listen(port, '127.0.0.1', resolve);
  });
  await new Promise((resolve) => probe.close(resolve));
}

/** The clock of the district: the demo's is set back to its school year, every other one is right. */
async function districtClock({ queries }: OpenDatabase): Promise<Clock> {
  const { settings } = tables;
  const [row] = await queries.select().from(settings).where(eq(settings.key, 'clock-offset-ms'));
  const clock = new Clock();
  clock.runWithOffset(typeof row?.value === 'number' ? row.value : 0);
  return clock;
}
