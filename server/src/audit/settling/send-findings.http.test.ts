import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditReply, FindingReply, SendFindingsReply } from '#contract/audit';
import type { MailReply } from '#contract/mail';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../../test/audit-now.js';
import { changeOf, openPeriod } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let found: readonly FindingReply[];
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  found = (await auditNow(registrar, openPeriod)).body.run!.findings;
});
afterAll(() => server.stop());

const placeOf = ({ ruleId, enrollmentId, sectionId, courseId, itemId }: FindingReply) => ({
  ruleId,
  enrollmentId,
  sectionId,
  courseId,
  itemId,
});
const send = (findings: readonly FindingReply[], more: object = {}, client = registrar) =>
  client.send<SendFindingsReply & Problem>('POST', '/audit/messages', {
    periodId: openPeriod,
    findings: findings.map(placeOf),
    ...more,
  });
const of = (rule: string) => found.filter(({ ruleId }) => ruleId === rule);
const noticeOf = async ({ key }: FindingReply) =>
  (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run!.findings.find((each) => each.key === key)!
    .notice;
const mails = async () => (await registrar.get<MailReply[]>('/mails?school=1')).body;

describe('telling teachers of findings', () => {
  it('writes one message each, about their own sections alone and without a name of a student; nothing goes before it is looked at', async () => {
    const wanted = [...of('override-without-reason'), ...of('due-outside-period')];
    const { body } = await send(wanted, { note: 'Please by Friday.' });
    expect([body.isSent, body.skipped, await noticeOf(wanted[0]!)]).toEqual([false, [], null]);
    const sectionsOf = new Map<string, Set<string>>();
    for (const { teacher, section } of wanted)
      sectionsOf.set(teacher!, (sectionsOf.get(teacher!) ?? new Set()).add(section!));
    expect(body.messages).toHaveLength(sectionsOf.size);
    expect(body.messages.reduce((sum, { findings }) => sum + findings, 0)).toBe(wanted.length);
    for (const { teacher, text } of body.messages) {
      const listed = [...sectionsOf].find(([name]) => name.split(', ').toReversed().join(' ') === teacher)![1];
      const told = [...text.matchAll(/^- (.+?)(?:, (?:Quarter grade|Exam))?: /gm)].map(([, section]) => section!);
      expect(new Set(told)).toEqual(listed);
      expect(wanted.filter(({ student }) => student && text.includes(student.split(',')[0]!)).length).toBe(
        wanted.filter(({ student }) => student && teacher.includes(student.split(',')[0]!)).length,
      );
      expect(text).toContain('Please by Friday.');
    }
  });

  it('sends what was looked at to the outbox, and says beside each finding who was told and whether the grade was saved since', async () => {
    const [finding] = of('label-not-on-scale');
    const before = (await mails()).length;
    const { body: preview } = await send([finding!]);
    const { status, body } = await send([finding!], { fingerprint: preview.fingerprint });
    expect([status, body.isSent, (await mails()).length]).toEqual([200, true, before + 1]);
    expect(await noticeOf(finding!)).toMatchObject({ to: preview.messages[0]!.teacher, isAnswered: false });
    server.clock.setTo(new Date(server.clock.now().getTime() + 60_000));
    const path = `/grade-sheets/${finding!.openSectionId}/${finding!.itemId}/${openPeriod}`;
    await registrar.send('DELETE', `${path}/sign-off`);
    const { body: sheet } = await registrar.get<{ rows: Parameters<typeof changeOf>[0][] }>(path);
    const row = sheet.rows.find(({ enrollmentId }) => enrollmentId === finding!.enrollmentId)!;
    expect((await registrar.send('PUT', path, { changes: [changeOf(row, { comment: 'Seen.' })] })).status).toBe(200);
    expect((await noticeOf(finding!))!.isAnswered).toBe(true);
    // A second one says that the teacher was told before.
    expect((await send([finding!])).body.messages[0]!.earlier).toBe(1);
  });

  it('is refused where what was looked at is no longer so, and for what the last audit did not find', async () => {
    const [finding] = of('code-with-percent');
    const { body: preview } = await send([finding!]);
    const stale = await send([finding!], { note: 'Another word.', fingerprint: preview.fingerprint });
    expect([stale.status, stale.body.code]).toEqual([409, 'reminders-changed']);
    expect((await send([{ ...finding!, ruleId: 'zero-posted' }])).status).toBe(404);
    expect((await send([finding!], {}, await server.as('harun'))).status).toBe(403);
  });

  it('skips what is about no section, and a teacher without an address, and says why', async () => {
    const [ofCourse] = of('sections-weighted-differently');
    const [other] = of('percent-and-label-disagree');
    await server.database.pool.query(
      `UPDATE people SET email = '' WHERE id = (SELECT teacher_id FROM sections WHERE id = ${other!.openSectionId})`,
    );
    const { body } = await send([ofCourse!, other!]);
    expect([body.messages, body.skipped.map(({ why }) => why)]).toEqual([
      [],
      ['It is about no section, so nobody’s to answer.', 'No e-mail address is known. Enter it under People.'],
    ]);
  });
});
