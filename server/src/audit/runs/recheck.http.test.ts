import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import type { AuditReply, FindingReply, SheetFindingsReply } from '#contract/audit';
import type { CodesReply } from '#contract/codes';
import type { SheetReply } from '#contract/posting';
import { ChangeLog } from '#server/changes';
import { Transactions } from '#server/platform';
import { auditNow } from '../../../test/audit-now.js';
import { changeOf, openPeriod, quarterGrade } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  await auditNow(registrar, openPeriod);
});
afterAll(() => server.stop());

const latest = async () => (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!;
const pathOf = (section: number) => `/grade-sheets/${section}/${quarterGrade}/${openPeriod}`;
const sheetOf = async (section: number) => (await registrar.get<SheetReply>(pathOf(section))).body;
const isPattern = new Set(
  auditRules.filter(({ scope, family }) => scope === 'sheet' && family === 'pattern').map(({ id }) => id),
);
/** With all that they say. */
const textsOf = (findings: readonly Pick<FindingReply, 'key' | 'ruleId' | 'sentence'>[]) =>
  findings
    .filter(({ ruleId }) => !isPattern.has(ruleId))
    .map(({ key, sentence }) => `${key} ${sentence}`)
    .toSorted();
const later = () => server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));

/** Something is changed a minute later, seen as the last audit sees it, and then by another audit. */
async function seenAfter(change: () => Promise<unknown>) {
  later();
  await change();
  const { findings, again } = await latest();
  const now = [...findings.filter(({ isGone }) => !isGone), ...again.added];
  await auditNow(registrar, openPeriod);
  return { findings, again, now: textsOf(now), whole: textsOf((await latest()).findings) };
}

describe('what was changed after an audit, looked at again', () => {
  it('right after one, nothing is gone and nothing is new', async () => {
    const { findings, again } = await latest();
    expect(again).toEqual({ isLooked: true, isBeyond: false, added: [] });
    expect(findings.filter(({ isGone }) => isGone)).toEqual([]);
  });

  it('is as the next audit finds it: grades mended, cleared and made wrong, a sheet signed off', async () => {
    const wrong = (await latest()).findings.find(({ ruleId }) => ruleId === 'percent-and-label-disagree')!;
    const other = (await latest()).findings.find(
      ({ ruleId, openSectionId }) => ruleId === 'grade-missing' && openSectionId !== wrong.openSectionId,
    )!;
    const { findings, again, now, whole } = await seenAfter(async () => {
      const { rows } = await sheetOf(wrong.openSectionId!);
      const own = rows.find(({ enrollmentId }) => enrollmentId === wrong.enrollmentId)!;
      const [second, third] = rows.filter((row) => row !== own && row.withdrawnOn === null);
      const changes = [
        changeOf(own, { percent: '75', label: 'C', code: null }),
        changeOf(second!, { percent: '75', label: 'A', code: null }),
        changeOf(third!, { percent: null, label: null, code: null, lastDate: null, comment: '' }),
      ];
      const saved = await registrar.send('PUT', pathOf(wrong.openSectionId!), { changes });
      expect(saved.status).toBe(200);
      const signed = await registrar.send('PUT', `${pathOf(other.openSectionId!)}/sign-off`, { note: '' });
      expect(signed.status).toBe(200);
    });
    expect(now).toEqual(whole);
    const goneRules = findings.filter(({ isGone }) => isGone).map(({ ruleId }) => ruleId);
    expect(goneRules).toEqual(expect.arrayContaining(['percent-and-label-disagree']));
    expect(again.added.map(({ ruleId }) => ruleId)).toEqual(
      expect.arrayContaining(['percent-and-label-disagree', 'grade-missing', 'signed-off-with-blanks']),
    );
    expect(again.added.every(({ openSectionId, sentence }) => openSectionId !== null && sentence !== '')).toBe(true);
    expect(again.isBeyond).toBe(false);
  });

  it('tells what is still there as it is now, and lets that stand, not what the audit saw', async () => {
    const { body: audit } = await auditNow(registrar, openPeriod);
    const about = audit.run!.findings.find(
      ({ ruleId, itemId }) => ruleId === 'override-without-reason' && itemId === quarterGrade,
    )!;
    const { rows } = await sheetOf(about.openSectionId!);
    const row = rows.find(({ enrollmentId }) => enrollmentId === about.enrollmentId)!;
    later();
    await registrar.send('DELETE', `${pathOf(about.openSectionId!)}/sign-off`);
    const saved = await registrar.send('PUT', pathOf(about.openSectionId!), {
      changes: [changeOf(row, { percent: '31', label: 'F', code: null, overrideReason: '' })],
    });
    expect(saved.status).toBe(200);
    const own = async () =>
      (await latest()).findings.find(
        ({ ruleId, enrollmentId, itemId }) =>
          ruleId === 'override-without-reason' && enrollmentId === about.enrollmentId && itemId === about.itemId,
      )!;
    const seen = await own();
    expect([seen.isGone, seen.sentence]).toEqual([false, expect.stringMatching(/^31\.00? F is posted, but /)]);
    const { ruleId, enrollmentId, sectionId, courseId, itemId, waiverRevision } = seen;
    const findings = [{ ruleId, enrollmentId, sectionId, courseId, itemId, revision: waiverRevision }];
    const decision = { periodId: openPeriod, findings, reason: 'Agreed with the office.', until: null };
    expect((await registrar.send('PUT', '/audit/waivers', decision)).status).toBe(200);
    expect((await own()).waiver!.state).toBe('holds');
    await auditNow(registrar, openPeriod);
    expect((await own()).waiver!.state).toBe('holds');
  });

  it('shows on the sheet of whoever posts', async () => {
    const about = (await latest()).findings.find(({ ruleId }) => ruleId === 'percent-and-label-disagree')!;
    const { rows } = await sheetOf(about.openSectionId!);
    const row = rows.find(({ enrollmentId }) => enrollmentId === about.enrollmentId)!;
    later();
    await registrar.send('PUT', pathOf(about.openSectionId!), {
      changes: [changeOf(row, { percent: '75', label: 'C', code: null })],
    });
    const { body } = await registrar.get<SheetFindingsReply>(
      `/sheet-findings?period=${openPeriod}&section=${about.openSectionId}`,
    );
    expect(body.findings.find(({ key }) => key === about.key)!.since).toBe('gone');
  });

  it('is no matter of what goes on in another school', async () => {
    await auditNow(registrar, openPeriod);
    later();
    const { rows } = await server.database.pool.query<{ path: string; id: number }>(`
      SELECT g.item_id || '/' || g.period_id AS path, e.id FROM grades g JOIN enrollments e ON e.id = g.enrollment_id
      JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
      JOIN (SELECT DISTINCT ON (section_id) id FROM enrollments ORDER BY section_id, id) one ON one.id = e.id
      WHERE c.school_id <> 1 LIMIT 40`);
    expect(rows.length).toBeGreaterThan(30);
    const log = server.application.get(ChangeLog, { strict: false });
    await server.application.get(Transactions, { strict: false }).run((queries) =>
      log.record(
        queries,
        { personId: 1, name: 'Morwenna Oake' },
        rows.map(({ path, id }) => ({ action: 'post', thing: `grade ${path}/${id}`, before: null, after: null })),
      ),
    );
    expect((await latest()).again).toEqual({ isLooked: true, isBeyond: false, added: [] });
  });

  it('says that only another audit sees what changed in the set-up', async () => {
    const codes = (await registrar.get<CodesReply>('/codes')).body;
    const { isLooked, isBeyond } = (
      await seenAfter(async () => {
        const { revision, codes: all } = codes;
        const renamed = all.map(({ grades: _grades, ...code }, at) =>
          at === 0 ? { ...code, meaning: `${code.meaning} indeed` } : code,
        );
        expect((await registrar.send('PUT', '/codes', { revision, codes: renamed })).status).toBe(200);
      })
    ).again;
    expect([isLooked, isBeyond]).toEqual([true, true]);
  });
});
