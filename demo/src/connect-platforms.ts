import { fork, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import type { INestApplicationContext } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import { createApplicationContext } from '#server/application';
import { MatchesService } from '#server/matching';
import { PlatformsService } from '#server/platforms';
import { tables, type Clock, type OpenDatabase } from '#server/platform';
import { NightlyRunsService, RunsService } from '#server/runs';
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
  const ended = once(child, 'exit').then(() => Promise.reject(new Error('the practice platforms did not start')));
  const [addresses] = (await Promise.race([once(child, 'message'), ended])) as [string[]];
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
  await joinFernway(context);
  await runLastNight(context, clock);
  await context.close();
}

/** The college has worked with its platform for a while: all but one letter is joined. */
async function joinFernway(context: INestApplicationContext): Promise<void> {
  const matches = context.get(MatchesService, { strict: false });
  const platforms = await context.get(PlatformsService, { strict: false }).ofSchool(college.id);
  const { id } = platforms.find(({ name }) => name === fernway.name)!;
  const { classes, names, people } = await matches.of(id);
  const joined = { decision: 'joined' as const };
  await matches.decide(registrar, id, [
    ...classes
      .filter(({ best }) => best !== null)
      .map((each) => ({ ...joined, kind: 'class' as const, ids: [each.id], target: String(each.best!.sectionId) })),
    ...names
      .filter(({ kind, best }) => kind !== 'total' && best !== null)
      .map(({ kind, places, best }) => ({
        ...joined,
        kind,
        ids: places.map((place) => place.id),
        target: best!.key,
      })),
    ...names
      .filter(({ kind }) => kind === 'total')
      .map(({ places }) => ({
        ...joined,
        kind: 'total' as const,
        ids: places.map((place) => place.id),
        target: String(college.id),
      })),
    ...people
      .filter(({ candidates }) => candidates.length === 1)
      .map((each) => ({ ...joined, kind: 'person' as const, ids: [each.id], target: String(each.candidates[0]!.id) })),
  ]);
}

/** Before the demo's first day begins, the college's night has passed. */
async function runLastNight(context: INestApplicationContext, clock: Clock): Promise<void> {
  const runs = context.get(RunsService, { strict: false });
  const [fern] = (await runs.ofSchool(college.id)).platforms;
  clock.setTo(new Date('2026-01-20T15:00:00Z'));
  await runs.setNightly(registrar, fern!.id, { at: '02:30', mode: 'keep', carriesWork: true, carriesTotals: false });
  clock.setTo(new Date('2026-01-21T02:30:05Z'));
  await context.get(NightlyRunsService, { strict: false }).lookAfter();
  const isWorking = async () => (await runs.ofSchool(college.id)).runs.some(({ state }) => state === 'working');
  while (await isWorking()) await new Promise((resolve) => setTimeout(resolve, 100));
  clock.setTo(new Date(demoNow));
}
