import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { AuditReply } from '#contract/audit';
import type { BookReply, ScoreReply } from '#contract/calculation';
import type { MailReply } from '#contract/mail';
import type { MatchDecisionBody, MatchesReply } from '#contract/matching';
import type { Problem } from '#contract/problems';
import type { PlanRunRequest, RunLetterReply, RunReply, RunRowsReply, RunsReply } from '#contract/runs';
import type { MarkFacts, RunReasonCode } from '#core/runs';
import { auditNow } from '../../test/audit-now.js';
import {
  connectPractice,
  practiceContent,
  startPractice,
  withWork,
  type PlatformContent,
  type PracticePlatform,
} from '../../test/practice-platform.js';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';
import { NightlyRunsService } from './nightly-runs.service.js';

let server: TestServer;
let registrar: TestClient;
/** Who teaches the section and so may change its book. */
let teacher: TestClient;
let content: PlatformContent;
let platform: PracticePlatform;
let platformId: number;
let sectionId: number;

beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  content = withWork(await practiceContent(server));
  platform = await startPractice(content);
  platformId = await joinedPlatform();
  teacher = await server.as('harun');
  await server.database.pool.query(
    `UPDATE sections SET teacher_id = (SELECT person_id FROM accounts WHERE username = 'harun') WHERE id = ${sectionId}`,
  );
});
afterAll(async () => {
  await platform.stop();
  await server.stop();
});
/** Each test begins with the books as they were and a platform that tells the same. */
beforeEach(async () => {
  platform.faults.clear();
  platform.change(content);
  await server.database.pool.query(`
    DELETE FROM runs; DELETE FROM assignment_origins;
    DELETE FROM scores WHERE assignment_id IN (SELECT id FROM assignments WHERE name IN ('Splice', 'Knots', 'Chart', 'Autumn walk'));
    DELETE FROM assignments WHERE name IN ('Splice', 'Knots', 'Chart', 'Autumn walk');
    DELETE FROM grades WHERE period_id = ${openPeriod} AND enrollment_id IN (SELECT id FROM enrollments WHERE section_id = ${sectionId});
    UPDATE learning_platforms SET default_category_id = NULL, nightly = NULL`);
});

/** Connected, its first class joined to a section, the copy ignored, the third left open. */
async function joinedPlatform(): Promise<number> {
  const kept = await connectPractice(server, platform);
  const { classes, names, targets, people, sections } = await matches(kept.id);
  const [boats, copy] = ['Boatbuilding (1)', 'Boats copy'].map((title) =>
    classes.find((each) => each.title === title)!,
  );
  sectionId = sections.find(({ name }) => name === 'Boatbuilding 1')!.id;
  const idsOf = (name: string) => names.find((each) => each.name === name)!.places.map(({ id }) => id);
  const category = targets.group.find(({ name }) => name === 'Homework')!.key;
  await decide(
    kept.id,
    { kind: 'class', ids: [copy!.id], decision: 'ignored', target: null },
    { kind: 'class', ids: [boats!.id], decision: 'joined', target: String(sectionId) },
    { kind: 'group', ids: idsOf('HW'), decision: 'joined', target: category },
    { kind: 'total', ids: idsOf('Quarter grade'), decision: 'joined', target: String(quarterGrade) },
    { kind: 'person', ids: [people[0]!.id], decision: 'joined', target: String(people[0]!.candidates[0]!.id) },
  );
  return kept.id;
}
const matches = async (id: number) => (await registrar.get<MatchesReply>(`/platforms/${id}/matches`)).body;
const decide = (id: number, ...decisions: MatchDecisionBody[]) =>
  registrar.send('POST', `/platforms/${id}/decisions`, { decisions });

const choices: Omit<PlanRunRequest, 'platformId'> = {
  periodId: openPeriod,
  mode: 'keep',
  carriesWork: true,
  carriesTotals: true,
};
async function planned(over: Partial<PlanRunRequest> = {}): Promise<RunReply> {
  const { status, body } = await registrar.send<RunReply>('POST', '/runs', { platformId, ...choices, ...over });
  expect(status).toBe(202);
  return settled(body.id);
}
/** The run once nobody works on it any more. */
async function settled(id: number): Promise<RunReply> {
  for (;;) {
    const { body } = await registrar.get<RunReply>(`/runs/${id}`);
    if (body.state !== 'working') return body;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
async function then(run: { id: number }, step: 'carry-out' | 'undo' | 'resume'): Promise<RunReply> {
  expect((await registrar.send('POST', `/runs/${run.id}/${step}`)).status).toBe(202);
  return settled(run.id);
}
const rowsOf = async ({ id }: { id: number }, query = '') =>
  (await registrar.get<RunRowsReply>(`/runs/${id}/rows?${query}`)).body.rows;
const book = async () => (await registrar.get<BookReply>(`/grade-books/${sectionId}/${openPeriod}`)).body;
const column = async (name: string) => {
  const { assignments, scores } = await book();
  const assignment = assignments.find((each) => each.name === name);
  return assignment && { assignment, scores: scores.filter(({ assignmentId }) => assignmentId === assignment.id) };
};
const saveScore = async (score: ScoreReply) => {
  const path = `/grade-books/${sectionId}/${openPeriod}/scores`;
  expect((await teacher.send('PUT', path, { changes: [score] })).status).toBe(200);
};
const students = () => content.members.filter(({ classId }) => classId === content.classes[0]!.id).length;
const reasonsOf = ({ counts }: RunReply) =>
  Object.fromEntries(counts.reasons.map(({ code, lines }) => [code, lines])) as Partial<Record<RunReasonCode, number>>;
const changeColumn = (label: string, change: Partial<PlatformContent['lineItems'][number]>) =>
  platform.change({
    ...content,
    lineItems: content.lineItems.map((each) => (each.label === label ? { ...each, ...change } : each)),
  });
const changeScores = (label: string, score: number, most = Infinity) =>
  platform.change({
    ...content,
    results: content.results.map((each, at) =>
      each.lineItemId.endsWith(`-${label}`) && at % 1000 < most ? { ...each, score } : each,
    ),
  });

describe('a run', () => {
  it('is planned without writing anything, with a reason for all that is not sent', async () => {
    const run = await planned();
    expect(run).toMatchObject({ stage: 'plan', state: 'ready', done: 3, total: 3, problem: null });
    expect(reasonsOf(run)).toMatchObject({
      'class-open': 1,
      'class-ignored': 1,
      'group-open': 1,
      'no-date': 1,
      unpublished: 1,
      'other-period': 1,
    });
    expect(run.counts.outcomes).toMatchObject({ create: 1 + 2 * students(), change: 0 });
    expect(await column('Splice')).toBeUndefined();
  });

  it('carried out writes what was planned; planned again it finds everything the same', async () => {
    const run = await then(await planned(), 'carry-out');
    expect(run.counts.results.written).toBe(1 + 2 * students());
    const { assignment, scores } = (await column('Splice'))!;
    expect(assignment).toMatchObject({ possible: '20', dueOn: '2026-01-09', version: 1 });
    expect(scores.map(({ points, version }) => [points, version])).toEqual(
      Array.from({ length: students() }, () => ['15', 1]),
    );
    const { sheet } = await sheetNamed(registrar, 'Boatbuilding 1');
    expect(sheet.rows.filter(({ mark }) => mark.percent === '80.00').length).toBe(students());
    const again = await planned();
    expect(again.counts.outcomes).toMatchObject({ create: 0, change: 0, same: 1 + 2 * students() });
  });

  it('stands beside the grades of its section with its age and what it left out', async () => {
    const run = await then(await planned(), 'carry-out');
    const { body } = await registrar.get(`/runs/last?section=${sectionId}&period=${openPeriod}`);
    expect(body).toMatchObject({ last: { runId: run.id, platform: 'Practice', written: 1 + 2 * students() } });
    expect((await teacher.get(`/runs/last?section=${sectionId}&period=${openPeriod}`)).body).toMatchObject(
      body as object,
    );
    expect((await teacher.get(`/runs/last?section=${sectionId + 1}&period=${openPeriod}`)).status).toBe(404);
  });

  it('brings what was refused once its cause is mended', async () => {
    await then(await planned(), 'carry-out');
    const { names, targets } = await matches(platformId);
    const ids = names.find(({ name }) => name === 'Quizzes & Tests')!.places.map(({ id }) => id);
    await decide(platformId, { kind: 'group', ids, decision: 'joined', target: targets.group.at(-1)!.key });
    const run = await planned();
    expect(reasonsOf(run)).not.toHaveProperty('group-open');
    expect(run.counts.outcomes).toMatchObject({ create: 1 + students() });
    await decide(platformId, { kind: 'group', ids, decision: 'open', target: null });
  });

  it('leaves out what stands in no category, which the audit tells of until its group is joined', async () => {
    const unmatched = async () => {
      const { run } = (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
      const found = run!.findings.filter(({ ruleId, isGone }) => ruleId === 'unmatched-group' && !isGone);
      return found.map(({ section, sentence }) => [section, sentence]);
    };
    await then(await planned(), 'carry-out');
    await auditNow(registrar, openPeriod);
    expect(await unmatched()).toEqual([
      [
        'Boatbuilding 1',
        `Scores on Practice in groups that are joined to no category: ${students()} (Quizzes & Tests). They do not count.`,
      ],
    ]);
    const { names, targets } = await matches(platformId);
    const ids = names.find(({ name }) => name === 'Quizzes & Tests')!.places.map(({ id }) => id);
    await decide(platformId, { kind: 'group', ids, decision: 'joined', target: targets.group.at(-1)!.key });
    expect(await unmatched()).toEqual([]);
    await decide(platformId, { kind: 'group', ids, decision: 'open', target: null });
    expect(await unmatched()).toHaveLength(1);
  });

  it('puts what has no group of ours into the default category, and counts it', async () => {
    const categoryId = Number((await matches(platformId)).targets.group[0]!.key);
    const path = `/runs/of-platform/${platformId}/default-category`;
    expect((await registrar.send<RunsReply>('PUT', path, { categoryId })).body.platforms[0]).toMatchObject({
      defaultCategoryId: categoryId,
    });
    expect(reasonsOf(await planned())).toMatchObject({ 'default-category': 1 });
    expect((await registrar.send<Problem>('PUT', path, { categoryId: 99_999 })).body.errors?.[0]?.field).toBe(
      'categoryId',
    );
  });

  it('notices that only the facts of an assignment changed', async () => {
    await then(await planned(), 'carry-out');
    changeColumn('Splice', { label: 'Knots', dueOn: '2026-01-12', scoreMaximum: 25 });
    const run = await planned();
    const changed = await rowsOf(run, 'outcome=change&kind=assignment');
    expect(changed).toMatchObject([
      {
        before: { name: 'Splice', dueOn: '2026-01-09', possible: '20' },
        after: { name: 'Knots', dueOn: '2026-01-12', possible: '25' },
      },
    ]);
    await then(run, 'carry-out');
    expect((await column('Knots'))!.assignment).toMatchObject({ possible: '25', version: 2 });
  });

  it('keeps what somebody entered here, or replaces it if told so', async () => {
    await then(await planned(), 'carry-out');
    const [score] = (await column('Splice'))!.scores;
    await saveScore({ ...score!, points: '19' });
    changeScores('Splice', 12);
    expect(reasonsOf(await planned())).toMatchObject({ kept: 1 });
    await then(await planned({ mode: 'replace' }), 'carry-out');
    expect(new Set((await column('Splice'))!.scores.map(({ points }) => points))).toEqual(new Set(['12']));
  });

  it('says of a mark that waits what the audit will say of it, and of others nothing', async () => {
    changeScores('total', 0);
    const run = await planned();
    const remarked = (await rowsOf(run)).filter(({ remarks }) => remarks.length > 0);
    expect(remarked).toHaveLength(students());
    for (const { kind, after, remarks } of remarked) {
      expect([kind, Number((after as MarkFacts).percent)]).toEqual(['mark', 0]);
      expect(remarks).toEqual([
        {
          severity: 'informs',
          rule: expect.any(String) as string,
          says: 'Zero is posted. Is it meant, or was nothing entered?',
        },
      ]);
    }
    await then(run, 'carry-out');
    expect((await rowsOf(run)).filter(({ remarks }) => remarks.length > 0)).toEqual([]);
  });

  it('writes only what was picked: not a student, nor a column with its scores, that was left out', async () => {
    const run = await planned();
    const [mark] = await rowsOf(run, 'kind=mark');
    await registrar.send('PUT', `/runs/${run.id}/picks`, { kind: 'person', keys: [mark!.personKey], isPicked: false });
    const done = await then(run, 'carry-out');
    expect(done.counts).toMatchObject({ leftOut: 2, results: { left: 2, written: 2 * students() - 1 } });
    const whole = await planned();
    const left = await rowsOf(whole, 'outcome=create');
    expect(left.map(({ personKey }) => personKey)).toEqual([mark!.personKey, mark!.personKey]);
  });

  it('leaves out the scores of a column that was left out, as they would have nowhere to stand', async () => {
    const run = await planned({ carriesTotals: false });
    const [assignment] = await rowsOf(run, 'kind=assignment&outcome=create');
    await registrar.send('PUT', `/runs/${run.id}/picks`, {
      kind: 'row',
      keys: [String(assignment!.id)],
      isPicked: false,
    });
    const done = await then(run, 'carry-out');
    expect(done.counts.results).toMatchObject({ left: 1, movedOn: students(), written: 0 });
  });

  it('does not write what changed here since it was planned', async () => {
    const run = await planned({ carriesWork: false });
    const { path, sheet } = await sheetNamed(registrar, 'Boatbuilding 1');
    const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    expect(
      (await registrar.send('PUT', path, { changes: [changeOf(row, { percent: '91', label: 'A−' })] })).status,
    ).toBe(200);
    const done = await then(run, 'carry-out');
    expect(done.counts.results).toMatchObject({ movedOn: 1, written: students() - 1 });
    const after = (await sheetNamed(registrar, 'Boatbuilding 1')).sheet.rows;
    expect(after.find(({ enrollmentId }) => enrollmentId === row.enrollmentId)!.mark.percent).toBe('91.00');
  });

  it('is taken back, but for what somebody changed since', async () => {
    const run = await then(await planned(), 'carry-out');
    const [score] = (await column('Splice'))!.scores;
    await saveScore({ ...score!, points: '19' });
    const undone = await then(run, 'undo');
    expect(undone.counts.results).toMatchObject({ stays: 2, undone: 2 * students() - 1 });
    const left = (await column('Splice'))!.scores.filter(({ points }) => points !== null);
    expect(left.map(({ points }) => points)).toEqual(['19']);
    const { sheet } = await sheetNamed(registrar, 'Boatbuilding 1');
    expect(sheet.rows.every(({ mark }) => mark.percent === null)).toBe(true);
  });

  it('neither its plan nor its undo touches a sheet that is signed off', async () => {
    const carried = await then(await planned({ carriesWork: false }), 'carry-out');
    const { path } = await sheetNamed(registrar, 'Boatbuilding 1');
    expect((await registrar.send('PUT', `${path}/sign-off`, { note: '' })).status).toBe(200);
    expect(reasonsOf(await planned({ carriesWork: false }))).toMatchObject({ 'signed-off': 1 });
    const undone = await then(carried, 'undo');
    expect(undone.counts.results).toMatchObject({ stays: students() });
    const { rows } = (await sheetNamed(registrar, 'Boatbuilding 1')).sheet;
    expect(rows.filter(({ mark, withdrawnOn }) => withdrawnOn === null && mark.percent === null)).toEqual([]);
    expect((await registrar.send('DELETE', `${path}/sign-off`)).status).toBe(200);
    const cleared = rows.map((row) => changeOf(row, { percent: null, label: null, code: null }));
    expect((await registrar.send('PUT', path, { changes: cleared })).status).toBe(200);
  });

  it('taken back whole leaves nothing behind and can be run again', async () => {
    await then(await then(await planned(), 'carry-out'), 'undo');
    expect(await column('Splice')).toBeUndefined();
    expect((await planned()).counts.outcomes).toMatchObject({ create: 1 + 2 * students() });
  });

  it('refuses a sealed period, and nothing of a plan is written into it', async () => {
    const run = await planned();
    await server.database.pool.query(`
      WITH audited AS (
        INSERT INTO audit_runs (school_id, period_id, started_by, started_at, grades_checked, milliseconds, rules)
        SELECT 1, ${openPeriod}, id, now(), 0, 0, '[]' FROM people LIMIT 1 RETURNING id, started_by)
      INSERT INTO seals (school_id, period_id, audit_run_id, sealed_by, sealed_at, entry_count)
      SELECT 1, ${openPeriod}, id, started_by, now(), 0 FROM audited`);
    const refused = await registrar.send<Problem>('POST', `/runs/${run.id}/carry-out`);
    expect([refused.status, refused.body.code]).toEqual([409, 'period-sealed']);
    expect(reasonsOf(await planned())).toMatchObject({ 'period-sealed': 1 });
    await server.database.pool.query(`DELETE FROM seals WHERE period_id = ${openPeriod}`);
  });
});

describe('a run on a platform that fails', () => {
  it.each(['slow', 'error', 'cut', 'expiredToken', 'repeatedPage', 'wrongTotal'] as const)(
    'gets over "%s"',
    async (kind) => {
      platform.faults.add({ kind, path: '/results', times: 1 });
      expect(await planned()).toMatchObject({ state: 'ready', done: 3 });
    },
  );

  it('waits for a platform that is away, and goes on by itself where it was', async () => {
    platform.faults.add({ kind: 'error', path: '/lineitems', times: 6, after: 1 });
    const { body } = await registrar.send<RunReply>('POST', '/runs', { platformId, ...choices });
    let problem: string | null = null;
    while (problem === null) {
      const { body: run } = await registrar.get<RunReply>(`/runs/${body.id}`);
      expect(run.state).toBe('working');
      problem = run.problem;
    }
    expect(problem).toContain('did not answer');
    expect(await settled(body.id)).toMatchObject({ state: 'ready', done: 3, problem: null });
  });

  it('fails when the platform sends a page for people, says so, and can be resumed', async () => {
    platform.faults.add({ kind: 'page', path: '/results', times: 50 });
    const { body } = await registrar.send<RunReply>('POST', '/runs', { platformId, ...choices });
    await registrar.send('POST', `/runs/${body.id}/stop`);
    expect(await settled(body.id)).toMatchObject({ stage: 'plan', state: 'stopped' });
    platform.faults.clear();
    expect(await then(body, 'resume')).toMatchObject({ state: 'ready', done: 3 });
  });

  it('that breaks in the middle of a class keeps nothing of it, and resumed writes nothing twice', async () => {
    const run = await planned();
    await server.database.pool.query(`
      CREATE FUNCTION pull_the_plug() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE 'plug'; END $$;
      CREATE TRIGGER plug AFTER INSERT ON scores FOR EACH STATEMENT EXECUTE FUNCTION pull_the_plug()`);
    expect(await then(run, 'carry-out')).toMatchObject({ stage: 'carry', state: 'failed' });
    expect(await column('Splice')).toBeUndefined();
    await server.database.pool.query(`DROP TRIGGER plug ON scores; DROP FUNCTION pull_the_plug()`);
    const done = await then(run, 'resume');
    expect(done).toMatchObject({
      stage: 'carry',
      state: 'ready',
      counts: { results: { written: 1 + 2 * students() } },
    });
    expect(new Set((await column('Splice'))!.scores.map(({ version }) => version))).toEqual(new Set([1]));
  });
});

describe('a letter to a teacher', () => {
  it('names what only the teacher can put right, and lies in the outbox and as a file', async () => {
    const run = await planned();
    const { body: letters } = await registrar.get<RunLetterReply[]>(`/runs/${run.id}/letters`);
    expect(letters).toMatchObject([{ to: 'Harun Nance', lines: 2 }]);
    expect(letters[0]!.text).toContain('- Boatbuilding 1: Reading. It has no due date there');
    expect(letters[0]!.text).not.toContain('Chart');
    expect((await registrar.get<MailReply[]>('/mails?school=1')).body).toEqual([]);
    await registrar.send('POST', `/runs/${run.id}/letters`);
    const { body: mails } = await registrar.get<MailReply[]>('/mails?school=1');
    expect(mails).toMatchObject([{ to: 'Harun Nance', about: `run ${run.id}`, subject: letters[0]!.subject }]);
    const path = `/mails/${mails[0]!.id}/message`;
    const message = Buffer.from((await registrar.get<Uint8Array>(path, 'bytes')).body).toString();
    // RFC 5322: header fields, an empty line, the body; every line ends in CRLF.
    expect(message).toMatch(/^From: .+\r\nTo: Harun Nance <[^>]+>\r\nSubject: /);
    expect(message.split('\r\n\r\n').length).toBeGreaterThan(1);
  });

  it('is a file beside an embedded database; on a server it is in the database alone', async () => {
    const run = await planned();
    await registrar.send('POST', `/runs/${run.id}/letters`);
    const { id } = (await registrar.get<MailReply[]>('/mails?school=1')).body[0]!;
    const { folder } = server.database;
    const kept = folder
      ? readFileSync(join(folder, 'outbox', `letter-${String(id).padStart(5, '0')}.eml`), 'utf8')
      : Buffer.from((await registrar.get<Uint8Array>(`/mails/${id}/message`, 'bytes')).body).toString();
    expect(kept).toContain('To: Harun Nance');
  });
});

describe('runs', () => {
  it('of one platform come one after the other', async () => {
    platform.faults.add({ kind: 'slow', path: '/lineitems', times: 3 });
    const plan = () => registrar.send<RunReply & Problem>('POST', '/runs', { platformId, ...choices });
    const answers = [...(await Promise.all([plan(), plan(), plan()])), await plan()];
    const [begun, ...others] = answers.toSorted((one, other) => one.status - other.status);
    expect([begun!.status, ...others.map(({ body }) => body.code)]).toEqual([
      202,
      ...others.map(() => 'run-under-way'),
    ]);
    await settled(begun!.body.id);
  });

  it('are undone the last one first, and then nothing of either is left', async () => {
    const first = await then(await planned({ mode: 'replace' }), 'carry-out');
    changeScores('Splice', 16);
    const second = await then(await planned({ mode: 'replace' }), 'carry-out');
    const refused = await registrar.send<Problem>('POST', `/runs/${first.id}/undo`);
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      409,
      'run-undo-order',
      `Run ${second.id} wrote over this one. Undo that one first, so that nothing of either is left.`,
    ]);
    await then(second, 'undo');
    await then(first, 'undo');
    expect(await column('Splice')).toBeUndefined();
  });

  it('of which a column went on the platform say that it still counts here', async () => {
    await then(await planned(), 'carry-out');
    platform.change({ ...content, lineItems: content.lineItems.filter(({ label }) => label !== 'Splice') });
    const rows = await rowsOf(await planned(), 'outcome=skip');
    expect(rows.filter(({ kind, name }) => kind === 'assignment' && name === 'Splice')).toMatchObject([
      { reasons: [{ code: 'gone-there' }] },
    ]);
    expect((await column('Splice'))!.assignment.isCounted).toBe(true);
  });

  it('are planned only from what is asked in full', async () => {
    const nothing = { platformId, ...choices, carriesWork: false, carriesTotals: false };
    expect((await registrar.send<Problem>('POST', '/runs', nothing)).body.errors).toEqual([
      { field: 'carriesWork', detail: 'assignments, totals or both' },
    ]);
    expect((await teacher.get('/runs?school=1')).status).toBe(403);
    const elsewhere = await registrar.send<Problem>('POST', `/runs/${(await planned()).id}/undo`);
    expect([elsewhere.status, elsewhere.body.code]).toEqual([409, 'run-elsewhere']);
  });

  it('begin by themselves at the time of night that was set, once, and are carried out unasked', async () => {
    const path = `/runs/of-platform/${platformId}/nightly`;
    const { mode, carriesWork, carriesTotals } = choices;
    const set = await registrar.send<RunsReply>('PUT', path, { at: '02:30', mode, carriesWork, carriesTotals });
    expect(set.body.platforms[0]!.nightly).toMatchObject({ at: '02:30', setBy: 'Morwenna Oake' });
    const night = server.application.get(NightlyRunsService);
    const before = server.clock.now();
    await night.lookAfter();
    expect((await registrar.get<RunsReply>('/runs?school=1')).body.runs).toEqual([]);
    server.clock.setTo(new Date('2026-01-22T02:31:00Z'));
    await night.lookAfter();
    await night.lookAfter();
    const { runs } = (await registrar.get<RunsReply>('/runs?school=1')).body;
    expect(runs).toMatchObject([{ isNightly: true }]);
    expect(await settled(runs[0]!.id)).toMatchObject({
      stage: 'carry',
      counts: { results: { written: 1 + 2 * students() } },
    });
    server.clock.setTo(before);
  });
});
