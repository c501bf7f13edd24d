import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { copyOfPreparedDistrict } from '../server/test/prepared-district.js';
import { startWombat } from './wombat-process.js';

declare module 'vitest' {
  interface ProvidedContext {
    /** A data folder with the demo district, made once for all journeys; each works on a copy. */
    demoFolder: string;
  }
}

export default async function prepareDemo(project: TestProject): Promise<() => Promise<void>> {
  const wombat = await startWombat(await copyOfPreparedDistrict());
  await wombat.end();
  project.provide('demoFolder', wombat.folder);
  return async () => rmSync(wombat.folder, { recursive: true, force: true });
}
