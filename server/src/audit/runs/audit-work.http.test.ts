import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuditProgressReply, AuditReply, AuditTaskReply, RuleSettingsReply } from '#contract/audit';
import type { Problem } from '#contract/problems';
import { auditNow } from '../../../test/audit-now.js';
import { openPeriod } from '../../../test/sheets.js';
import { demoInstant, startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';
import { AuditWork } from './audit-work.js';
import { NightlyAuditsService } from './nightly-audits.service.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const begin = () => registrar.send<AuditProgressReply>('POST', '/audit/runs', { periodId: openPeriod });
const stop = async () =>
  (await registrar.send<AuditProgressReply>('DELETE', `/audit/runs?period=${openPeriod}`)).body.task;
const task = async (period = openPeriod) =>
  (await registrar.get<AuditProgressReply>(`/audit/progress?period=${period}`)).body.task;
const newest = async () => (await registrar.get<AuditReply>(`/audit?period=${openPeriod}`)).body.run;
const ask = async <Row extends object>(statement: string) => (await server.database.pool.query<Row>(statement)).rows;

/** An audit that another server works on, and says how far it is. */
async function elsewhere(until: string): Promise<number> {
  const [row] = await ask<{ id: number }>(`
    INSERT INTO audit_tasks (period_id, state, started_by, started_at, sections_done, section_count, worker, worker_until)
    VALUES (${openPeriod}, 'running', 1, '2026-01-21T10:00:00Z', 17, 197, 'another', ${until}) RETURNING id`);
  return row!.id;
}

describe('an audit that is under way', () => {
  it('is nobody’s before one began, and over once it is done', async () => {
    expect(await task()).toBeNull();
    await auditNow(registrar, openPeriod);
    expect(await task()).toBeNull();
    expect((await newest())!.gradesChecked).toBeGreaterThan(6_000);
  });

  it('is everybody’s: how far it is, by whom, and whoever begins one joins it', async () => {
    await elsewhere(`now() + interval '1 hour'`);
    const seen = {
      state: 'running',
      sectionsDone: 17,
      sectionCount: 197,
      problem: null,
    } satisfies Partial<AuditTaskReply>;
    expect(await task()).toMatchObject({ ...seen, startedBy: 'Morwenna Oake', startedAt: '2026-01-21T10:00:00.000Z' });
    const { status, body } = await begin();
    expect([status, body.task!.sectionsDone]).toEqual([202, 17]);
    expect(await ask(`SELECT count(*)::int AS count FROM audit_tasks`)).toEqual([{ count: 1 }]);
  });

  it('is stopped by anybody who may audit; what was found before stays, and the next one is whole', async () => {
    const before = await newest();
    expect((await stop())!.state).toBe('stopped');
    expect(await newest()).toEqual(before);
    expect(await stop()).toMatchObject({ state: 'stopped', sectionsDone: 17 });
    const { body } = await auditNow(registrar, openPeriod);
    expect([body.run!.id > before!.id, body.run!.findings.length]).toEqual([true, before!.findings.length]);
  });

  it('is stopped while it is read, and keeps nothing', async () => {
    const before = (await newest())!.id;
    await begin();
    expect((await stop())!.state).toBe('stopped');
    // Whatever it was at is over once the next one is done: there is that one and no other.
    await auditNow(registrar, openPeriod);
    expect(await ask(`SELECT count(*)::int AS count FROM audit_runs WHERE id > ${before}`)).toEqual([{ count: 1 }]);
  });

  it('goes on where the server that was at it fell', async () => {
    const before = (await newest())!.id;
    const id = await elsewhere(`now() - interval '1 second'`);
    await server.application.get(AuditWork, { strict: false }).held.workNow(id);
    expect(await task()).toBeNull();
    expect((await newest())!.id).toBeGreaterThan(before);
  });

  it('is not taken from a server that still is at it', async () => {
    const id = await elsewhere(`now() + interval '1 hour'`);
    await server.application.get(AuditWork, { strict: false }).held.workNow(id);
    expect((await task())!.sectionsDone).toBe(17);
    await ask(`DELETE FROM audit_tasks`);
  });

  it('twice at once is once', async () => {
    const before = (await newest())!.id;
    await Promise.all([auditNow(registrar, openPeriod), auditNow(registrar, openPeriod), begin(), begin()]);
    for (let each = await task(); each !== null; each = await task()) expect(each.state).toBe('running');
    const [row] = await ask<{ count: number }>(`SELECT count(*)::int AS count FROM audit_runs WHERE id > ${before}`);
    // Whoever comes just after it was done begins another one.
    expect([1, 2]).toContain(row!.count);
    expect(await ask(`SELECT count(*)::int AS count FROM audit_tasks`)).toEqual([{ count: 0 }]);
  });

  it('is told to viewers, begun and stopped by those who may audit', async () => {
    const viewer = await server.as('sunniva');
    expect((await viewer.get(`/audit/progress?period=${openPeriod}`)).status).toBe(200);
    expect((await viewer.send('POST', '/audit/runs', { periodId: openPeriod })).status).toBe(403);
    expect((await viewer.send('DELETE', `/audit/runs?period=${openPeriod}`)).status).toBe(403);
    expect((await (await server.as('harun')).get(`/audit/progress?period=${openPeriod}`)).status).toBe(403);
  });
});

describe('by night', () => {
  const seen = async () => (await registrar.get<RuleSettingsReply>('/audit/rules?school=1')).body.nightlyRevision;
  const set = async (at: string | null, revision?: string) =>
    registrar.send<RuleSettingsReply & Problem>('PUT', '/audit/nightly/1', {
      at,
      revision: revision ?? (await seen()),
    });
  const lookAfter = () => server.application.get(NightlyAuditsService, { strict: false }).lookAfter();
  /** Periods that are audited when somebody looks so many days later, once all audits are done; then it is today again. */
  const begunAfter = async (days: number, hours = 0) => {
    const [last] = await ask<{ id: number }>('SELECT coalesce(max(id), 0) AS id FROM audit_runs');
    server.clock.setTo(new Date(demoInstant.getTime() + days * 86_400_000 + hours * 3_600_000));
    await lookAfter();
    while ((await ask('SELECT FROM audit_tasks')).length > 0) await new Promise((resolve) => setTimeout(resolve, 50));
    server.clock.setTo(demoInstant);
    const begun = await ask<{ period: number }>(`SELECT period_id AS period FROM audit_runs WHERE id > ${last!.id}`);
    return begun.map(({ period }) => period);
  };

  it('nothing is audited until somebody says when', async () => {
    expect(await begunAfter(1)).toEqual([]);
  });

  it('each period in which grades are posted is audited once, in the name of who set it', async () => {
    const { body } = await set('02:30');
    expect(body.nightly).toEqual({ at: '02:30', setBy: 'Morwenna Oake' });
    expect(await begunAfter(0)).toEqual([]);
    expect(await begunAfter(1)).toEqual([openPeriod]);
    expect((await newest())!.startedBy).toBe('Morwenna Oake');
    expect(await begunAfter(1, 1)).toEqual([]);
  });

  it('not once nobody can post any more, nor after it is called off; both are changes with a way back', async () => {
    expect(await begunAfter(60)).not.toContain(openPeriod);
    const { change } = await set(null);
    expect(await begunAfter(2)).toEqual([]);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect(await begunAfter(2)).toContain(openPeriod);
  });

  it('set by two at once is set by one, and the other is told', async () => {
    const revision = await seen();
    expect((await set('03:30', revision)).status).toBe(200);
    const { status, body } = await set('04:30', revision);
    expect([status, body.code]).toEqual([409, 'changed-meanwhile']);
    expect((await registrar.get<RuleSettingsReply>('/audit/rules?school=1')).body.nightly!.at).toBe('03:30');
  });

  it.each(['2:30', '24:00', 'midnight', ''])('“%s” is no time of day', async (at) => {
    const { status } = await set(at);
    expect(status).toBe(422);
  });
});
