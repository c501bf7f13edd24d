import { rmSync } from 'node:fs';
import pg from 'pg';
import type { TestProject } from 'vitest/node';
import { prepareDemo } from '#demo';
import { openDatabase } from '#server/platform';
import { copyOfPreparedDistrict } from './prepared-district.js';

/** The demo district, made once for a run of the tests; each test file works on a copy. */
export type TemplateDatabase =
  | { readonly kind: 'folder'; readonly folder: string }
  | { readonly kind: 'server'; readonly url: string; readonly name: string };

declare module 'vitest' {
  interface ProvidedContext {
    template: TemplateDatabase;
  }
}

export default async function makeTemplate(project: TestProject): Promise<() => Promise<void>> {
  const url = process.env['DATABASE_URL'];
  return url ? onServer(project, url) : inFolder(project);
}

async function inFolder(project: TestProject): Promise<() => Promise<void>> {
  const folder = await copyOfPreparedDistrict();
  project.provide('template', { kind: 'folder', folder });
  return async () => rmSync(folder, { recursive: true, force: true });
}

async function onServer(project: TestProject, url: string): Promise<() => Promise<void>> {
  const name = `wombat_template_${process.pid}`;
  await onAdministration(url, `CREATE DATABASE ${name}`);
  const own = new URL(url);
  own.pathname = `/${name}`;
  const database = await openDatabase({ kind: 'server', url: own.href });
  await prepareDemo(database);
  await database.close();
  project.provide('template', { kind: 'server', url, name });
  return () => onAdministration(url, `DROP DATABASE ${name}`);
}

/** One statement that belongs to no database of ours. */
export async function onAdministration(url: string, statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(statement);
  await client.end();
}
