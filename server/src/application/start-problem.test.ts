import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startProblem } from './start-problem.js';
import { startWombat } from './start.js';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wombat-start-problem-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What is said of a start that fails. */
const saysOf = (environment: NodeJS.ProcessEnv) =>
  startWombat({ PORT: '0', ...environment }).then(
    () => 'it started',
    (error: unknown) => startProblem(error),
  );

describe('a Wombat that cannot start says why', () => {
  it('where a file is in the way of its data folder', async () => {
    const file = join(folder, 'file');
    writeFileSync(file, '');
    expect(await saysOf({ WOMBAT_DATA: join(file, 'data') })).toContain('cannot be a folder: a file is in its way');
  });

  it('where it may not write, or the disk is full', () => {
    const thrown = (code: string) => Object.assign(new Error(code), { code, path: '/data/wombat.pid' });
    for (const code of ['EACCES', 'EPERM', 'EROFS'])
      expect(startProblem(thrown(code))).toMatch(/^Wombat may not write \/data\/wombat\.pid\./);
    for (const code of ['ENOSPC', 'EDQUOT'])
      expect(startProblem(thrown(code))).toMatch(/^The disk is full \(\/data\/wombat\.pid\)\./);
    expect(startProblem(new Error('of Drizzle', { cause: thrown('ENOSPC') }))).toMatch(/^The disk is full/);
  });

  it('where its port is taken', async () => {
    const taken = createServer();
    await new Promise<void>((resolve) => taken.listen(0, '127.0.0.1', resolve));
    const { port } = taken.address() as AddressInfo;
    mkdirSync(join(folder, 'port'));
    expect(await saysOf({ PORT: String(port), WOMBAT_DATA: join(folder, 'port') })).toBe(
      `Port ${port} is taken by another program. Choose another with PORT.`,
    );
    taken.close();
  });

  it('where no database server answers', async () => {
    expect(await saysOf({ DATABASE_URL: 'postgres://wombat@127.0.0.1:1/wombat' })).toContain('cannot be reached');
  });

  it('but not for a fault of its own, which is told whole', () => {
    expect(startProblem(new TypeError('x is undefined'))).toBeUndefined();
    expect(startProblem('a text')).toBeUndefined();
  });
});
