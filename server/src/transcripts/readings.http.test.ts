import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LogReply, ReadingReply } from '#contract/changes';
import type { StudentReply } from '#contract/transcripts';
import { demoInstant, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let viewer: TestClient;
let student: StudentReply;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  viewer = await server.as('sunniva');
  student = (await registrar.get<StudentReply[]>('/students?school=1')).body[0]!;
});
afterAll(() => server.stop());

const readings = async () => (await registrar.get<ReadingReply[]>(`/students/${student.id}/readings`)).body;
const after = (minutes: number) => server.clock.setTo(new Date(demoInstant.getTime() + minutes * 60_000));

describe('who reads a student’s record', () => {
  it('is remembered with when and which part, once for a page that asks again and again', async () => {
    expect(await readings()).toEqual([]);
    await viewer.get(`/students/${student.id}/transcript`);
    await viewer.get(`/students/${student.id}/transcript`);
    after(20);
    await viewer.get(`/changes?thing=${encodeURIComponent(`person ${student.id}`)}`);
    await registrar.get(`/students/${student.id}/transcript`);
    expect((await readings()).map(({ actor, part, at }) => [actor, part, at.slice(11, 16)])).toEqual([
      ['Morwenna Oake', 'transcript', '11:02'],
      ['Sunniva Holloway', 'history', '11:02'],
      ['Sunniva Holloway', 'transcript', '10:42'],
    ]);
    const log = await registrar.get<LogReply>(`/log?thing=${encodeURIComponent(`student ${student.id}`)}`);
    expect(log.body.entries.map(({ action }) => action)).toEqual([
      'read transcript',
      'read history',
      'read transcript',
    ]);
  });

  it('is exported, and is not for whoever only reads', async () => {
    const path = `/students/${student.id}/readings`;
    const file = await registrar.get<Uint8Array>(`${path}/export?type=csv`, 'bytes');
    const lines = Buffer.from(file.body).toString().trim().split('\r\n');
    expect([lines[0], lines.length]).toEqual(['When,Who,What was read', 4]);
    expect([(await viewer.get(path)).status, (await viewer.get(`${path}/export?type=csv`)).status]).toEqual([403, 403]);
  });

  it('leaves no reading where nobody could read', async () => {
    const before = await readings();
    const teacher = await server.as('harun');
    expect((await teacher.get(`/students/${student.id}/transcript`)).status).toBe(403);
    expect((await teacher.get(`/changes?thing=${encodeURIComponent(`person ${student.id}`)}`)).status).toBe(404);
    expect(await readings()).toEqual(before);
  });
});
