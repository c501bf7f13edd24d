import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A new folder among the temporary ones that nobody else on the machine can look into; it goes when this process ends. */
export function privateFolder(purpose: string): string {
  const folder = mkdtempSync(join(tmpdir(), `wombat-${purpose}-`));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return folder;
}
