import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { copyOfPreparedDistrict } from '../server/test/prepared-district.js';
import { startDemoProcess } from './wombats.js';

declare module 'vitest' {
  interface ProvidedContext {
    /** A data folder with the demo district and its platforms, made once for all journeys; each works on a copy. */
    demoFolder: string;
  }
}

export default async function prepareDemo(project: TestProject): Promise<() => Promise<void>> {
  const wombat = await startDemoProcess(await copyOfPreparedDistrict());
  await wombat.end();
  project.provide('demoFolder', wombat.folder);
  return async () => rmSync(wombat.folder, { recursive: true, force: true });
}
