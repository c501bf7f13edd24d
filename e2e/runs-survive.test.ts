import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { MatchDecisionBody, MatchesReply } from '#contract/matching';
import type { RunReply } from '#contract/runs';
import { startDemoProcess, type WombatProcess } from './wombats.js';

/* The power goes in the middle of each stage of a run over 122 classes; the platform goes with it and comes back elsewhere. */

const [quillpond, quarter] = [1, 4];

let wombat: WombatProcess;
let call: <Body>(method: string, path: string, body?: object) => Promise<Body>;

async function start(folder?: string) {
  wombat = await startDemoProcess(folder);
  const headers = { 'content-type': 'application/json' };
  const body = JSON.stringify({ username: 'morwenna', password: 'low-tide' });
  const session = await fetch(`${wombat.address}/api/session`, { method: 'POST', headers, body });
  const { csrfToken } = (await session.json()) as { csrfToken: string };
  const cookie = session.headers.getSetCookie()[0]!.split(';')[0]!;
  call = async (method, path, sent) => {
    const answer = await fetch(`${wombat.address}/api${path}`, {
      method,
      headers: { ...headers, cookie, 'x-csrf-token': csrfToken },
      ...(sent ? { body: JSON.stringify(sent) } : {}),
    });
    expect(answer.ok, `${method} ${path}`).toBe(true);
    return (await answer.json()) as never;
  };
}

beforeAll(async () => {
  await start();
  const { classes, names, people } = await call<MatchesReply>('GET', `/platforms/${quillpond}/matches`);
  const joined = (kind: MatchDecisionBody['kind'], ids: number[], target: string): MatchDecisionBody => ({
    kind,
    ids,
    decision: 'joined',
    target,
  });
  await call('POST', `/platforms/${quillpond}/decisions`, {
    decisions: [
      ...classes
        .slice(0, 40)
        .flatMap(({ id, best, claimedBy }) =>
          best && claimedBy.length === 0 ? [joined('class', [id], String(best.sectionId))] : [],
        ),
      ...names.flatMap(({ kind, places, best }) => (best ? [joined(kind, places.map(({ id }) => id), best.key)] : [])), // prettier-ignore
      ...people.map(({ id, candidates }) => joined('person', [id], String(candidates[0]!.id))),
    ],
  });
});
afterAll(() => wombat?.stop());

const runOf = (id: number) => call<RunReply>('GET', `/runs/${id}`);

/** The run once it is as wanted; asked now and then, as each question takes time from the run itself. */
async function runWhen(id: number, isWanted: (run: RunReply) => boolean): Promise<RunReply> {
  for (;;) {
    const run = await runOf(id);
    if (isWanted(run)) return run;
    await setTimeout(200);
  }
}
const isOver = ({ state }: RunReply) => state !== 'working';

/** Pulls the plug once some classes have the stage behind them, and gives the run as it is when all is back and over. */
async function interrupted(id: number): Promise<RunReply> {
  const before = await runWhen(id, ({ done }) => done >= 15);
  expect(before.state).toBe('working');
  await wombat.kill();
  await start(wombat.folder);
  expect((await runOf(id)).done).toBeGreaterThanOrEqual(before.done);
  return runWhen(id, isOver);
}

describe('a run whose server is killed', () => {
  let id: number;
  let planned: number;
  const begin = { platformId: quillpond, periodId: quarter, mode: 'keep', carriesWork: true, carriesTotals: true };

  it('while it is planned goes on with the next class and has every class once', async () => {
    id = (await call<RunReply>('POST', '/runs', begin)).id;
    const run = await interrupted(id);
    expect(run).toMatchObject({ stage: 'plan', state: 'ready', done: 122, total: 122 });
    planned = run.counts.outcomes.create + run.counts.outcomes.change;
    expect(planned).toBeGreaterThan(500);
  });

  it('while it is carried out writes everything once and nothing twice', async () => {
    await call('POST', `/runs/${id}/carry-out`);
    const run = await interrupted(id);
    expect(run).toMatchObject({
      stage: 'carry',
      state: 'ready',
      counts: { results: { written: planned, movedOn: 0 } },
    });
    const again = await call<RunReply>('POST', '/runs', begin);
    const plan = await runWhen(again.id, isOver);
    expect(plan.counts.outcomes).toMatchObject({ create: 0, change: 0 });
  });

  it('while it is taken back leaves nothing behind', async () => {
    await call('POST', `/runs/${id}/undo`);
    const run = await interrupted(id);
    expect(run).toMatchObject({ stage: 'undo', state: 'ready', counts: { results: { undone: planned, stays: 0 } } });
  });
});
