import { once } from 'node:events';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { connect, createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startWombat } from './start.js';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-start-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

it('an empty Wombat on a port that is taken makes nobody whose password would never be told; on a free one it tells it', async () => {
  const taken = createServer();
  await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
  const data = join(folder, 'data');
  const environment = (port: number) => ({ ...process.env, DATABASE_URL: '', WOMBAT_DATA: data, PORT: String(port) });
  await expect(startWombat(environment((taken.address() as AddressInfo).port))).rejects.toMatchObject({
    code: 'EADDRINUSE',
  });
  expect(existsSync(data)).toBe(false);
  await new Promise((resolve) => taken.close(resolve));

  const wombat = await startWombat(environment(0));
  expect(wombat.firstRegistrar?.password.length).toBeGreaterThan(8);
  const answer = await fetch(`${wombat.address.replace('localhost', '127.0.0.1')}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(wombat.firstRegistrar),
  });
  await wombat.stop();
  expect(answer.status).toBe(201);

  const again = await startWombat(environment(0));
  await again.stop();
  expect(again.firstRegistrar).toBeNull();
});

it('stops though a browser holds a connection that it has not used yet', async () => {
  const wombat = await startWombat({
    ...process.env,
    DATABASE_URL: '',
    WOMBAT_DATA: join(folder, 'stopping'),
    PORT: '0',
  });
  const idle = connect(Number(new URL(wombat.address).port), '127.0.0.1');
  await once(idle, 'connect');
  await wombat.stop();
  idle.destroy();
  await expect(fetch(wombat.address)).rejects.toThrow('fetch failed');
});
