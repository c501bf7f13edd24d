import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ChangeReply, LogReply, UndoReply } from '#contract/changes';
import type { Problem } from '#contract/problems';
import type { CodesReply } from '#contract/codes';
import type { GpaPolicyBody, GpaPolicyReply } from '#contract/transcripts';
import { checkLog } from '../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const gpa = async () => (await registrar.get<GpaPolicyReply>('/gpa-policy')).body;
const codes = async () => (await registrar.get<CodesReply>('/codes')).body;
const mine = async () => (await registrar.get<ChangeReply[]>('/changes/mine')).body;
const undo = <Body = UndoReply>(id: number | null) => registrar.send<Body>('POST', `/changes/${id}/undo`);
const saveGpa = async (changed: Partial<GpaPolicyBody>, revision?: string) => {
  const { policy, revision: now } = await gpa();
  return registrar.send<GpaPolicyReply & Problem>('PUT', '/gpa-policy', {
    ...policy,
    ...changed,
    revision: revision ?? now,
  });
};
const saveCodes = async (change: (list: CodesReply['codes']) => object[]) => {
  const { codes: list, revision } = await codes();
  const bodies = change(list).map(({ grades: _grades, ...body }: { grades?: number }) => body);
  return registrar.send<CodesReply & Problem>('PUT', '/codes', { revision, codes: bodies });
};
const whole = async () => (await checkLog(registrar)).state === 'whole';

describe('a change', () => {
  it('says its number on the reply, and is remembered with who, what, and each fact before and after', async () => {
    const { status, change } = await saveGpa({ digits: 2, mostAddedCredits: '3' });
    const [last] = await mine();
    expect([status, last!.id]).toEqual([200, change]);
    expect(last).toMatchObject({
      actor: 'Morwenna Oake',
      action: 'save the GPA settings',
      undoes: null,
      isUndone: false,
      canUndo: true,
      things: [{ thing: 'gpa-settings district', called: 'the GPA settings' }],
    });
    expect(last!.things[0]!.fields).toEqual([
      { field: 'digits', before: '3', after: '2' },
      { field: 'most added credits', before: '4', after: '3' },
    ]);
    expect((await undo(change)).status).toBe(200);
  });

  it('that changes nothing is none', async () => {
    const before = await mine();
    const { status, change } = await saveGpa({});
    expect([status, change, await mine()]).toEqual([200, null, before]);
  });

  it('from a value that somebody else changed is refused with who it was, and nothing is written', async () => {
    const { revision } = await gpa();
    const first = await saveGpa({ digits: 1 });
    const { status, body, change } = await saveGpa({ digits: 0 }, revision);
    expect([status, body.code, body.detail, change]).toEqual([
      409,
      'changed-meanwhile',
      'Morwenna Oake changed the GPA settings since you opened it. What you typed is kept here: look at what is saved now and save again.',
      null,
    ]);
    expect((await gpa()).policy.digits).toBe(1);
    await undo(first.change);
  });

  it('two at once from the same value: one is written, the other told of it', async () => {
    const { revision } = await gpa();
    const both = await Promise.all([saveGpa({ digits: 0 }, revision), saveGpa({ digits: 4 }, revision)]);
    expect(both.map(({ status }) => status).toSorted()).toEqual([200, 409]);
    await undo(both.find(({ status }) => status === 200)!.change);
    expect((await gpa()).revision).toBe(revision);
  });
});

describe('an undo', () => {
  it('puts back what was before, as a change of its own, which can be undone too', async () => {
    const before = await gpa();
    const { change } = await saveGpa({ digits: 2 });
    const after = await gpa();
    const { status, body } = await undo(change);
    expect([status, body.action, (await gpa()).policy]).toEqual([200, 'undo: save the GPA settings', before.policy]);
    const [undone, first] = await mine();
    expect([undone!.id, undone!.undoes, undone!.canUndo, first!.isUndone, first!.canUndo]).toEqual([
      body.id,
      change,
      true,
      true,
      false,
    ]);
    expect((await undo(body.id)).body.action).toBe('redo: save the GPA settings');
    expect((await gpa()).policy).toEqual(after.policy);
    expect((await mine()).slice(0, 3).map(({ isUndone }) => isUndone)).toEqual([false, true, false]);
    await undo(change);
    expect((await gpa()).policy).toEqual(before.policy);
  });

  it('of what others built on says what stands in the way, and is possible once that is undone', async () => {
    const first = await saveGpa({ digits: 2 });
    const second = await saveGpa({ rounding: 'down' });
    const refused = await undo<Problem>(first.change);
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      409,
      'moved-on',
      'the GPA settings: Morwenna Oake did this since: save the GPA settings.',
    ]);
    await undo(second.change);
    expect((await undo(first.change)).status).toBe(200);
    expect((await gpa()).policy).toMatchObject({ digits: 3, rounding: 'halfUp' });
  });

  it('is refused for what a save would be refused for: a code that grades are posted with by now', async () => {
    const added = { ...(await codes()).codes[0]!, code: 'TRY', meaning: 'Trial' };
    const { change } = await saveCodes((list) => [...list, added]);
    await server.database.pool.query(
      `UPDATE grades SET code = 'TRY', label = NULL, percent = NULL WHERE id = (SELECT min(id) FROM grades WHERE code IS NULL)`,
    );
    const { status, body } = await undo<Problem>(change);
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect((await codes()).codes.map(({ code }) => code)).toContain('TRY');
  });

  it.each([
    ['a change that there is not', 999_999, 404, 'not-found'],
    ['no number', 'last', 400, undefined],
  ])('of %s is refused', async (_what, id, status, code) => {
    const refused = await registrar.send<Problem>('POST', `/changes/${id}/undo`);
    expect(refused.status).toBe(status);
    expect(code === undefined || refused.body.code === code).toBe(true);
  });

  it('is not for somebody who may not make the change', async () => {
    const { change } = await saveGpa({ digits: 2 });
    const teacher = await server.as('harun');
    const { status, body } = await teacher.send<Problem>('POST', `/changes/${change}/undo`);
    expect([status, body.code]).toEqual([404, 'not-found']);
    expect((await teacher.get<ChangeReply[]>('/changes/mine')).body).toEqual([]);
    await undo(change);
  });
});

describe('the history', () => {
  it('of a thing has every change of it, the newest first', async () => {
    const { change } = await saveGpa({ digits: 4 });
    const { body } = await registrar.get<ChangeReply[]>('/changes?thing=gpa-settings%20district');
    expect(body[0]!.id).toBe(change);
    expect(body.every(({ things }) => things.some(({ thing }) => thing === 'gpa-settings district'))).toBe(true);
    expect(body.map(({ id }) => id)).toEqual(body.map(({ id }) => id).toSorted((a, b) => b - a));
    await undo(change);
  });

  it.each([
    ['an entry whose value was altered', `UPDATE change_log SET after = '"else"' WHERE id = $1`],
    ['an entry that was moved to another change', 'UPDATE change_log SET change_id = change_id + 1000 WHERE id = $1'],
    ['an entry that says it undid another', 'UPDATE change_log SET undoes = 1 WHERE id = $1'],
    ['an entry that was moved in time', `UPDATE change_log SET at = at + interval '1 millisecond' WHERE id = $1`],
    ['a removed entry', 'DELETE FROM change_log WHERE id = $1'],
    ['an end that was cut off', 'DELETE FROM change_log WHERE id > $1'],
    [
      'an entry put in out of turn',
      `INSERT INTO change_log (at, actor_id, actor, action, thing, before, after, previous_hash, hash)
       SELECT at, actor_id, actor, action, thing, before, after, previous_hash, hash FROM change_log WHERE id = $1`,
    ],
  ])('shows %s', async (_what, statement) => {
    expect(await whole()).toBe(true);
    const { rows } = await server.database.pool.query<{ id: number }>(
      'SELECT id FROM change_log WHERE change_id IS NOT NULL ORDER BY id LIMIT 1',
    );
    const client = await server.database.pool.query('SELECT * FROM change_log ORDER BY id');
    await server.database.pool.query(statement, [rows[0]!.id]);
    expect(await whole()).toBe(false);
    await server.database.pool.query('DELETE FROM change_log');
    await server.database.pool.query(
      'INSERT INTO change_log SELECT * FROM jsonb_populate_recordset(NULL::change_log, $1::jsonb)',
      [JSON.stringify(client.rows)],
    );
    expect(await whole()).toBe(true);
  });
});

describe('the log', () => {
  const log = async (query = '') => (await registrar.get<LogReply>(`/log${query}`)).body;

  it('has every entry, newest first, with who, when, what, and each fact before and after', async () => {
    const { change } = await saveGpa({ digits: 1 });
    const { entries, people, kinds } = await log();
    expect(entries[0]).toMatchObject({
      actor: 'Morwenna Oake',
      action: 'save the GPA settings',
      thing: 'gpa-settings district',
      called: 'the GPA settings',
      fields: [{ field: 'digits', before: '3', after: '1' }],
      change,
    });
    expect(entries.map(({ id }) => id)).toEqual(entries.map(({ id }) => id).toSorted((a, b) => b - a));
    expect(people.map(({ name }) => name)).toContain('Oake, Morwenna');
    expect(kinds).toContainEqual({ kind: 'gpa-settings', called: 'the GPA settings' });
    await undo(change);
  });

  it.each([
    ['a kind', '?thing=codes', ({ thing }: LogReply['entries'][number]) => thing.startsWith('codes ')],
    [
      'a thing',
      '?thing=gpa-settings%20district',
      ({ thing }: LogReply['entries'][number]) => thing === 'gpa-settings district',
    ],
    [
      'a part of what was done',
      '?text=undo%3A',
      ({ action }: LogReply['entries'][number]) => action.startsWith('undo:'),
    ],
  ])('is narrowed to %s', async (_what, query, fits) => {
    const { entries } = await log(query);
    expect(entries.length).toBeGreaterThan(0);
    expect(entries.every(fits)).toBe(true);
  });

  it('is narrowed to a person, a stretch of time, and what comes before an entry', async () => {
    const all = (await log()).entries;
    const [first, last] = [all.at(-1)!, all[0]!];
    expect((await log('?personId=999999')).entries).toEqual([]);
    expect((await log(`?before=${last.id}`)).entries.map(({ id }) => id)).toEqual(all.slice(1).map(({ id }) => id));
    expect((await log(`?until=${first.at}`)).entries).toEqual([]);
    expect((await log(`?from=${first.at}`)).entries).toHaveLength(all.length);
    // What a pattern would mean is only text here.
    expect((await log('?text=%25')).entries).toEqual([]);
    const { status } = await registrar.get('/log?from=yesterday');
    expect(status).toBe(422);
  });

  it('is a file with a row for each fact, whose texts are no formulas', async () => {
    const { body } = await registrar.get<Uint8Array>('/log/export?thing=gpa-settings', 'bytes');
    const lines = new TextDecoder().decode(body).trim().split('\r\n');
    expect(lines[0]).toBe('Number,Time,Who,What,Thing,Fact,Before,After,Change,Undoes,Reason,Hash');
    expect(
      lines.some((line) => line.includes(',Morwenna Oake,save the GPA settings,the GPA settings,digits,3,2,')),
    ).toBe(true);
  });

  it('and its check are the registrar’s', async () => {
    const teacher = await server.as('harun');
    for (const path of ['/log', '/log/export', '/log/check']) expect((await teacher.get(path)).status).toBe(403);
    expect((await teacher.get('/changes?thing=gpa-settings%20district')).status).toBe(404);
    expect((await teacher.get('/changes?thing=nonsense')).status).toBe(404);
  });

  it('was checked when the server started', async () => {
    const started = await checkLog(registrar);
    expect(started).toMatchObject({ state: 'whole', faultAt: null });
    expect(started.checked).toBe(started.entries);
  });
});
