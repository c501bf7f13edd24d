import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { eq } from 'drizzle-orm';
import { createApplicationContext } from '#server/application';
import { PlatformsService } from '#server/matching';
import { tables, type OpenDatabase } from '#server/platform';
import { fernway, quillpond } from './platform-contents.js';
import { registrar } from './prepare-demo.js';
import { college, demoNow, upper } from './schools.js';

const { learningPlatforms } = tables;

export interface RunningPlatforms {
  readonly addresses: readonly string[];
  stop(): void;
}

/** Starts the practice platforms beside Wombat, as the platforms of a district run beside it. */
export async function startPlatforms(): Promise<RunningPlatforms> {
  const child: ChildProcess = fork(fileURLToPath(new URL('start-platforms.js', import.meta.url)));
  const [addresses] = (await once(child, 'message')) as [string[]];
  return { addresses, stop: () => child.disconnect() };
}

/** Connects and reads them the first time; later only says where they are now, as their ports change. */
export async function connectPlatforms(database: OpenDatabase, addresses: readonly string[]): Promise<void> {
  const known = await database.queries.select({ name: learningPlatforms.name }).from(learningPlatforms);
  const all = [
    { schoolId: upper.id, habits: quillpond },
    { schoolId: college.id, habits: fernway },
  ];
  for (const [at, { habits }] of all.entries())
    await database.queries
      .update(learningPlatforms)
      .set({ address: addresses[at]! })
      .where(eq(learningPlatforms.name, habits.name));
  if (known.length > 0) return;
  const { context, clock } = await createApplicationContext(database);
  clock.setTo(new Date(demoNow));
  const platforms = context.get(PlatformsService, { strict: false });
  for (const [at, { schoolId, habits }] of all.entries()) {
    const { name, clientId, clientSecret } = habits;
    const { id } = await platforms.connect(registrar, {
      schoolId,
      name,
      address: addresses[at]!,
      clientId,
      clientSecret,
    });
    await platforms.finished(id);
  }
  await context.close();
}
