import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { CalculationReply, PolicyEffectReply } from '#contract/calculation';
import type { MatchDecisionBody, MatchesReply, WeightsReply, WeightsTakenReply } from '#contract/matching';
import type { PlatformReply } from '#contract/platforms';
import type { Problem } from '#contract/problems';
import { PlatformsService } from '#server/platforms';
import {
  connectPractice,
  practiceContent,
  startPractice,
  type PlatformContent,
  type PracticePlatform,
} from '../../test/practice-platform.js';
import { openPeriod } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let content: PlatformContent;
let platform: PracticePlatform;
let kept: PlatformReply;
let classId: number;

/* One class that is joined: homework weighs 60 there, tests 40; the third group is ignored. */
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  const plain = await practiceContent(server);
  const weights = { HW: 60, Tests: 40 } as Record<string, number>;
  content = { ...plain, groups: plain.groups.map((each) => ({ ...each, weight: weights[each.title] ?? null })) };
  platform = await startPractice(content);
  kept = await connectPractice(server, platform);
  const { classes, names, targets, sections } = await matches();
  classId = classes.find(({ title }) => title === 'Harbour History (1)')!.id;
  const section = sections.find(({ name }) => name === 'Harbour History 1')!;
  const idsOf = (name: string) => names.find((each) => each.name === name)!.places.map(({ id }) => id);
  const category = (name: string) => targets.group.find((each) => each.name === name)!.key;
  await decide(
    { kind: 'class', ids: [classId], decision: 'joined', target: String(section.id) },
    { kind: 'group', ids: idsOf('HW'), decision: 'joined', target: category('Homework') },
    { kind: 'group', ids: idsOf('Tests'), decision: 'joined', target: category('Tests') },
    { kind: 'group', ids: idsOf('Quizzes & Tests'), decision: 'ignored', target: null },
  );
});
afterAll(async () => {
  await platform.stop();
  await server.stop();
});
beforeEach(() => platform.faults.clear());

const finished = () => server.application.get(PlatformsService, { strict: false }).finished(kept.id);
const matches = async () => (await registrar.get<MatchesReply>(`/platforms/${kept.id}/matches`)).body;
const decide = (...decisions: MatchDecisionBody[]) =>
  registrar.send('POST', `/platforms/${kept.id}/decisions`, { decisions });
const weights = async () =>
  (await registrar.get<WeightsReply>(`/platforms/${kept.id}/weights?period=${openPeriod}`)).body;
const take = (side: 'theirs' | 'ours', ids = [classId]) =>
  registrar.send<WeightsTakenReply>('POST', `/platforms/${kept.id}/weights/take`, {
    periodId: openPeriod,
    classIds: ids,
    side,
  });
const restore = (groups: readonly object[]) =>
  registrar.send<WeightsReply>('POST', `/platforms/${kept.id}/weights/restore`, { periodId: openPeriod, groups });
const ownPolicies = async () =>
  (await registrar.get<CalculationReply>(`/calculation?period=${openPeriod}`)).body.policies.filter(
    ({ section, periodId }) => section === 'Harbour History 1' && periodId === openPeriod,
  );

describe('the weights of a class', () => {
  it('are compared with those of the section, category by category', async () => {
    const { classes, categories } = await weights();
    const names = new Map(categories.map(({ id, name }) => [id, name]));
    expect(classes).toMatchObject([
      { title: 'Harbour History (1)', state: 'differ', from: 'the school', theirSum: '100' },
    ]);
    expect(classes[0]!.rows.map(({ categoryId, theirs, ours }) => [names.get(categoryId), theirs, ours])).toEqual([
      ['Class work', null, '30'],
      ['Homework', '60', '10'],
      ['Quizzes', null, '20'],
      ['Tests', '40', '40'],
    ]);
  });

  it('show what taking them would do before it is done', async () => {
    const path = `/platforms/${kept.id}/weights/effect`;
    const { body } = await registrar.send<PolicyEffectReply>('POST', path, {
      periodId: openPeriod,
      classIds: [classId],
    });
    expect(body.sections).toBe(1);
    expect(body.changed).toBeGreaterThan(0);
    expect(await ownPolicies()).toEqual([]);
  });

  it('taken become the policy of the section in this period, and can be put back', async () => {
    const { body, change } = await take('theirs');
    expect(body).toMatchObject({
      taken: 1,
      problem: null,
      weights: { classes: [{ state: 'same', from: 'this section, for this period' }] },
    });
    const [own] = await ownPolicies();
    expect(own!.policy.categories.map(({ weight }) => weight)).toEqual(['0', '60', '0', '40']);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect((await weights()).classes).toMatchObject([{ state: 'differ', from: 'the school' }]);
    expect(await ownPolicies()).toEqual([]);
  });

  it('are not put back over a policy that somebody changed since', async () => {
    const { change } = await take('theirs');
    const [own] = await ownPolicies();
    const { department, sectionId, periodId, policy, revision } = own!;
    const place = { department, sectionId, periodId };
    const changed = { ...place, revision, policy: { ...policy, cap: '100' } };
    expect((await registrar.send('PUT', `/schools/1/policies?period=${openPeriod}`, changed)).status).toBe(200);
    const late = await registrar.send<Problem>('POST', `/changes/${change}/undo`);
    expect([late.status, late.body.code]).toEqual([409, 'moved-on']);
    await registrar.send('POST', `/schools/1/policies/remove?period=${openPeriod}`, {
      ...place,
      revision: (await ownPolicies())[0]!.revision,
    });
  });

  it('are given the platform from ours, which then tells them itself', async () => {
    const { body } = await take('ours');
    expect(body).toMatchObject({ taken: 1, problem: null });
    await registrar.send('POST', `/platforms/${kept.id}/read`);
    await finished();
    const told = (await matches()).names.filter(({ kind }) => kind === 'group');
    const own = told.flatMap(({ name, places }) =>
      places.filter((place) => place.classId === classId).map(({ weight }) => [name, weight]),
    );
    expect(own).toEqual(expect.arrayContaining([['HW', 10], ['Tests', 40]])); // prettier-ignore
    await restore(body.before);
    expect((await weights()).classes[0]!.rows.map(({ theirs }) => theirs)).toEqual([null, '60', null, '40']);
  });

  it('that the platform does not take are told, with what it took before', async () => {
    platform.faults.add({ kind: 'error', path: '/gradebook/v1p2/categories/', times: 9, after: 1 });
    const { body } = await take('ours');
    expect(body.problem).toContain('did not answer');
    expect(body.before).toHaveLength(1);
    platform.faults.clear();
    await restore(body.before);
  });

  it('are taken only where they differ, come to 100 and are all joined', async () => {
    const { classes } = await matches();
    const open = classes.find(({ title }) => title === 'Boatbuilding (1)')!.id;
    const refused = await take('theirs', [open]);
    expect([refused.status, (refused.body as unknown as Problem).code]).toEqual([409, 'weights-elsewhere']);
    const teacher = await server.as('harun');
    expect((await teacher.get(`/platforms/${kept.id}/weights?period=${openPeriod}`)).status).toBe(403);
  });

  it('keep a category that their groups feed from being removed', async () => {
    const path = `/schools/1/categories?period=${openPeriod}`;
    const { body } = await registrar.get<CalculationReply>(`/calculation?period=${openPeriod}`);
    const listed = body.categories
      .filter(({ sectionId }) => sectionId === null)
      .map(({ id, name, tint, isActive }) => ({ id, name, tint, isActive }));
    const left = listed.filter(({ name }) => name !== 'Homework');
    const refused = await registrar.send<Problem>('PUT', path, { revision: body.revision, categories: left });
    expect([refused.status, refused.body.code]).toEqual([409, 'in-use']);
    expect(refused.body.detail).toContain('groups of learning platforms');
  });
});
