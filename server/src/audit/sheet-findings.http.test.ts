import { afterAll, beforeAll, expect, it } from 'vitest';
import type { AuditReply, SheetFindingCountReply, SheetFindingsReply } from '#contract/audit';
import type { SheetListReply, SheetReply } from '#contract/posting';
import { auditNow } from '../../test/audit-now.js';
import { changeOf, openPeriod, quarterGrade } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let audit: AuditReply;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const ofSection = async (section: number, client = registrar) =>
  client.get<SheetFindingsReply>(`/sheet-findings?period=${openPeriod}&section=${section}`);
const counts = async (client = registrar) =>
  (await client.get<SheetFindingCountReply[]>(`/sheet-findings/counts?period=${openPeriod}`)).body;
const severityOf = (ruleId: string) => audit.rules.find(({ id }) => id === ruleId)!.severity;
/** What blocks or warns in a section, in the words of the audit itself. */
const expected = (section: number) =>
  audit
    .run!.findings.filter((each) => each.openSectionId === section)
    .filter(({ ruleId }) => severityOf(ruleId) !== 'informs' && ruleId !== 'grade-missing');
const sectionWith = (ruleId: string) => audit.run!.findings.find((each) => each.ruleId === ruleId)!;

it('nothing is said before an audit', async () => {
  expect((await ofSection(1)).body).toEqual({ at: null, findings: [] });
  expect(await counts()).toEqual([]);
  audit = (await auditNow(registrar, openPeriod)).body;
});

it('each section has what the audit found there and stands in the way, counted in the list as on its sheets', async () => {
  const byRule = sectionWith('percent-and-label-disagree');
  const { body } = await ofSection(byRule.openSectionId!);
  expect(body.at).toBe(audit.run!.startedAt);
  expect(body.findings.map(({ key }) => key)).toEqual(expected(byRule.openSectionId!).map(({ key }) => key));
  const [one] = body.findings.filter(({ enrollmentId }) => enrollmentId === byRule.enrollmentId);
  expect(one).toMatchObject({
    itemId: quarterGrade,
    severity: 'blocks',
    sentence: byRule.sentence,
    toldAt: null,
    since: null,
  });
  const all = await counts();
  for (const item of new Set(body.findings.map(({ itemId }) => itemId)))
    expect(all.find(({ sectionId, itemId }) => sectionId === byRule.openSectionId && itemId === item)?.findings).toBe(
      body.findings.filter(({ itemId }) => itemId === item).length,
    );
});

it('a teacher sees their own and no others', async () => {
  const teacher = await server.as('harun');
  const { body: lists } = await teacher.get<SheetListReply[]>(`/grade-sheets?period=${openPeriod}`);
  const own = new Set(lists.flatMap(({ sheets }) => sheets.map(({ sectionId }) => sectionId)));
  const seen = await counts(teacher);
  expect(seen.map(({ sectionId }) => sectionId).filter((id) => !own.has(id))).toEqual([]);
  expect(seen).toEqual((await counts()).filter(({ sectionId }) => own.has(sectionId)));
  const other = audit.run!.findings.find(({ openSectionId }) => openSectionId !== null && !own.has(openSectionId))!;
  expect((await ofSection(other.openSectionId!, teacher)).status).toBe(404);
  expect((await ofSection([...own][0]!, teacher)).status).toBe(200);
});

it('what was saved since says so, what is let stand is no longer told', async () => {
  const about = sectionWith('percent-and-label-disagree');
  const { openSectionId, enrollmentId, ruleId, sectionId, courseId, itemId, waiverRevision } = about;
  const path = `/grade-sheets/${openSectionId}/${quarterGrade}/${openPeriod}`;
  const row = (await registrar.get<SheetReply>(path)).body.rows.find((each) => each.enrollmentId === enrollmentId)!;
  server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
  const saved = await registrar.send('PUT', path, { changes: [changeOf(row, { percent: '75', label: 'C' })] });
  expect(saved.status).toBe(200);
  const of = async () => (await ofSection(openSectionId!)).body.findings.filter(({ key }) => key === about.key);
  expect((await of()).map(({ since }) => since)).toEqual(['gone']);
  const waived = await registrar.send('PUT', '/audit/waivers', {
    periodId: openPeriod,
    findings: [{ ruleId, enrollmentId, sectionId, courseId, itemId, revision: waiverRevision }],
    reason: 'Agreed with the head of department.',
    until: null,
  });
  expect(waived.status).toBe(200);
  expect(await of()).toEqual([]);
});

it('what only informs is told once the teacher was told of it', async () => {
  const informing = audit.run!.findings.find(
    ({ ruleId, openSectionId, teacher }) => severityOf(ruleId) === 'informs' && openSectionId !== null && teacher,
  )!;
  const keys = async () => (await ofSection(informing.openSectionId!)).body.findings;
  expect((await keys()).map(({ key }) => key)).not.toContain(informing.key);
  const { ruleId, enrollmentId, sectionId, courseId, itemId } = informing;
  const request = { periodId: openPeriod, findings: [{ ruleId, enrollmentId, sectionId, courseId, itemId }] };
  const { body: plan } = await registrar.send<{ fingerprint: string }>('POST', '/audit/messages', request);
  await registrar.send('POST', '/audit/messages', { ...request, fingerprint: plan.fingerprint });
  const told = (await keys()).find(({ key }) => key === informing.key);
  expect(told).toMatchObject({ severity: 'informs', toldAt: expect.stringMatching(/^2026-01-21T/) });
});

it('the sheet knows what rules do in its course', async () => {
  const { openSectionId } = sectionWith('percent-and-label-disagree');
  const effects = async () =>
    (await registrar.get<SheetReply>(`/grade-sheets/${openSectionId}/${quarterGrade}/${openPeriod}`)).body.ruleEffects;
  expect(await effects()).toEqual({});
  const { body } = await registrar.get<{ schoolRevision: string; departments: string[] }>('/audit/rules?school=1');
  const none = { departments: [], courses: [] };
  await registrar.send('PUT', '/audit/rules/1', {
    rules: [
      { ruleId: 'zero-posted', effect: 'warns', threshold: null, exceptions: none },
      {
        ruleId: 'grade-missing',
        effect: null,
        threshold: null,
        exceptions: { ...none, departments: body.departments },
      },
    ],
    revision: body.schoolRevision,
  });
  expect(await effects()).toEqual({ 'zero-posted': 'warns', 'grade-missing': 'off' });
});
