import { createHash } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import type { AuditReply, FindingReply, SendFindingsReply } from '#contract/audit';
import type { Problem } from '#contract/problems';
import type { ReadinessReply } from '#contract/transcripts';
import { auditNow } from '../../../test/audit-now.js';
import { blockingOf, certify, settlePeriod } from '../../../test/settle-period.js';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const issue = (note = '', client = registrar) =>
  client.send<AuditReply & Problem>('POST', '/audit/certificates', { periodId: openPeriod, note });
const latest = async () => (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body;
const broken = async () => (await latest()).certificate?.broken;
const seal = () => registrar.send<Problem>('POST', '/seals', { periodId: openPeriod });
const step = async () =>
  (await registrar.get<ReadinessReply>(`/seals/readiness?period=${openPeriod}`)).body.steps.find(
    ({ code }) => code === 'certified',
  )!;
const later = () => server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
const audit = async () => {
  later();
  return (await auditNow(registrar, openPeriod)).body;
};
const placeOf = ({ ruleId, enrollmentId, sectionId, courseId, itemId }: FindingReply) => ({
  ruleId,
  enrollmentId,
  sectionId,
  courseId,
  itemId,
});
const waivedOf = (finding: FindingReply) => ({ ...placeOf(finding), revision: finding.waiverRevision });

/** Another percentage for the first student of a section, and how it is taken back. */
async function changeOneGrade(): Promise<() => Promise<void>> {
  later();
  const { path, sheet } = await sheetNamed(registrar, 'Shore Life 3', quarterGrade);
  if (sheet.signedOff) await registrar.send('DELETE', `${path}/sign-off`);
  const row = sheet.rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
  const { change } = await registrar.send('PUT', path, { changes: [changeOf(row, { comment: 'Looked at again.' })] });
  return async () => {
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
  };
}

/** Tells the teacher of findings; answers whom. */
async function tellTeacherOf(findings: readonly FindingReply[]): Promise<string> {
  const request = { periodId: openPeriod, findings: findings.map(placeOf) };
  const { body } = await registrar.send<SendFindingsReply>('POST', '/audit/messages', request);
  await registrar.send('POST', '/audit/messages', { ...request, fingerprint: body.fingerprint });
  return body.messages[0]!.teacher;
}

describe('a certificate', () => {
  it('is refused before an audit, while a finding blocks, and to whoever may not audit', async () => {
    expect((await issue()).body.code).toBe('audit-needed');
    expect((await registrar.get(`/audit/certificate?period=${openPeriod}`)).status).toBe(404);
    await audit();
    expect((await issue()).body.code).toBe('findings-block');
    expect((await issue('', await server.as('harun'))).status).toBe(403);
    expect([await step(), (await latest()).certificate]).toMatchObject([{ isDone: false, isNeeded: true }, null]);
  });

  it('tells what was checked, and what was let stand by whom and why; without it nothing is sealed', async () => {
    await settlePeriod(registrar, later);
    expect(blockingOf(await audit())).toEqual([]);
    const [first] = (await latest()).run!.findings;
    const waive = { periodId: openPeriod, findings: [waivedOf(first!)], reason: 'Agreed in the meeting.', until: null };
    await registrar.send('PUT', '/audit/waivers', waive);
    const told = await tellTeacherOf((await latest()).run!.findings.filter(({ teacher }) => teacher).slice(0, 1));
    expect((await seal()).body.code).toBe('certificate-needed');
    const { status, body } = await issue('  For the board.  ');
    const { run, certificate } = body;
    expect([status, certificate]).toMatchObject([
      200,
      { by: 'Morwenna Oake', note: 'For the board.', grades: run!.gradesChecked, waivers: 1, broken: [] },
    ]);
    expect((await step()).isDone).toBe(true);
    const { rows } = await server.database.pool.query<{
      facts: { rules: object[]; waivers: object[]; told: object[] };
    }>(`SELECT facts FROM audit_certificates WHERE period_id = ${openPeriod}`);
    expect(rows[0]!.facts.rules).toHaveLength(auditRules.length);
    expect(rows[0]!.facts.rules.reduce((sum: number, rule) => sum + (rule as { found: number }).found, 0)).toBe(
      run!.findings.length,
    );
    expect(rows[0]!.facts.told).toEqual([{ to: told, findings: 1, at: expect.stringMatching(/^2026-01-/) }]);
    expect(rows[0]!.facts.waivers).toMatchObject([
      { subject: first!.subject, sentence: first!.sentence, reason: 'Agreed in the meeting.', by: 'Morwenna Oake' },
    ]);
  });

  it('knows its grades by a hash that anybody makes of the file, and of the rows themselves', async () => {
    const { gradesHash } = (await latest()).certificate!;
    const { body } = await registrar.get<Uint8Array>(`/audit/grades-file?period=${openPeriod}`, 'bytes');
    const hash = (text: Uint8Array | string) => createHash('sha256').update(text).digest('hex');
    expect(hash(body)).toBe(gradesHash);
    // As docs/formats.md says it, from the table, in words of its own.
    const { rows } = await server.database.pool.query<Record<string, string | number | null>>(
      `SELECT enrollment_id, item_id, percent::text, label, code, last_date::text, hours::text, comment FROM grades
       WHERE period_id = ${openPeriod} ORDER BY enrollment_id, item_id`,
    );
    const said = rows.filter(({ percent, label, code, comment }) => percent ?? label ?? code ?? (comment || null));
    const lines = said.map(
      (row) =>
        `[${Object.values(row)
          .map((each) => JSON.stringify(each))
          .join(', ')}]\n`,
    );
    expect(lines.join('')).toBe(new TextDecoder().decode(body));
  });

  it('comes on paper', async () => {
    const { status, body } = await registrar.get<Uint8Array>(`/audit/certificate?period=${openPeriod}`, 'bytes');
    expect([status, new TextDecoder().decode(body.slice(0, 5))]).toEqual([200, '%PDF-']);
    expect(body.length).toBeGreaterThan(10_000);
  });

  it('breaks when a grade changes, so that nothing is sealed, and holds again once it is as it was', async () => {
    const takeBack = await changeOneGrade();
    expect([await broken(), (await step()).isDone]).toEqual([['grades'], false]);
    expect((await issue()).body.code).toBe('audit-outdated');
    await audit();
    expect((await seal()).body.code).toBe('certificate-broken');
    await takeBack();
    expect(await broken()).toEqual([]);
  });

  it('breaks when a waiver ends, and when a finding blocks again', async () => {
    await audit();
    await issue();
    const waived = (await latest()).run!.findings.find(({ waiver }) => waiver?.state === 'holds')!;
    const end = { periodId: openPeriod, findings: [waivedOf(waived)] };
    const { change } = await registrar.send('POST', '/audit/waivers/end', end);
    expect(await broken()).toEqual(['waivers']);
    await registrar.send('POST', `/changes/${change}/undo`);
    expect(await broken()).toEqual([]);
    await server.database.pool.query(
      `UPDATE audit_findings SET rule_id = 'grade-missing', message = 'missing', data = '{"item":"Exam"}' WHERE id = (SELECT max(id) FROM audit_findings)`,
    );
    expect(await broken()).toEqual(['findings']);
  });

  it('is in the log, and the seal names it', async () => {
    later();
    const { certificate } = await certify(registrar);
    later();
    expect((await seal()).status).toBe(200);
    const { rows } = await server.database.pool.query<{ action: string; after: { certificates?: number[] } }>(
      `SELECT action, after FROM change_log WHERE action IN ('issue certificate', 'seal period') ORDER BY id DESC LIMIT 2`,
    );
    expect(rows.map(({ action }) => action)).toEqual(['seal period', 'issue certificate']);
    expect(rows[0]!.after.certificates).toEqual([certificate!.id]);
    expect((await issue()).body.code).toBe('period-sealed');
  });
});
