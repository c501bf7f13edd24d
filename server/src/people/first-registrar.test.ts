import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { seedFile, startWombat, type RunningWombat } from '#server/application';
import { clientOf } from '../../test/test-server.js';

const folder = mkdtempSync(join(tmpdir(), 'wombat-empty-'));
let wombat: RunningWombat;
const start = () => startWombat({ PORT: '0', WOMBAT_DATA: folder });
beforeAll(async () => {
  wombat = await start();
});
afterAll(async () => {
  await wombat.stop();
  rmSync(folder, { recursive: true, force: true });
});

it('an empty Wombat has one registrar, who is told a password at each start until it was used', async () => {
  expect(seedFile).toMatch(/empty-database/);
  const lost = wombat.firstRegistrar!;
  await wombat.stop();
  wombat = await start();
  const nobody = clientOf(wombat.address, '', '');
  expect((await nobody.get('/session/demo-people')).body).toEqual([]);
  expect((await nobody.send('POST', '/session', lost)).status).toBe(401);
  const signedIn = await nobody.send('POST', '/session', wombat.firstRegistrar!);
  expect(signedIn.status).toBe(201);
  const registrar = clientOf(wombat.address, signedIn.headers.getSetCookie()[0]!.split(';')[0]!, '');
  expect((await registrar.get('/schools')).body).toEqual([]);
  await wombat.stop();
  wombat = await start();
  expect(wombat.firstRegistrar).toBeNull();
});

it('a port that is none is refused before anything is opened', async () => {
  await expect(startWombat({ PORT: 'high', WOMBAT_DATA: folder })).rejects.toThrow(
    'PORT is "high"; it must be a number from 0 to 65535',
  );
});
