import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { auditRules } from '#core/audit';
import type { FindingReply } from '#contract/audit';
import { auditNow } from '../../test/audit-now.js';
import { blockingOf } from '../../test/settle-period.js';
import { startSignedOff, type TestServer } from '../../test/test-server.js';

interface Planted {
  readonly rule: string;
  readonly section: string | null;
  readonly student: string | null;
  readonly course?: string;
  readonly item?: string;
  readonly period: string;
}
const read = (name: string) =>
  JSON.parse(readFileSync(new URL(`../../../demo/${name}.json`, import.meta.url), 'utf8')) as Planted[];
const [faults, decoys] = [read('planted-faults'), read('decoys')];
const [firstTerm, secondTerm] = [32, 33];

/** By what a planted fault and a finding are known to be of one thing. */
const ofFault = ({ rule, section, student, course, item }: Planted) =>
  `${rule}: ${section ?? course ?? item}, ${student}`;
const ofFinding = ({ ruleId, section, student, course, itemName }: FindingReply) =>
  `${ruleId}: ${section ?? course ?? itemName}, ${student}`;
const plantedIn = (list: readonly Planted[], period: string) =>
  list.filter((each) => each.period === period).map(ofFault);

let server: TestServer;
let found: readonly FindingReply[];
let blocking: readonly string[];
beforeAll(async () => {
  server = await startSignedOff();
  const { body } = await auditNow(await server.as('morwenna'), secondTerm);
  found = body.run!.findings;
  blocking = blockingOf(body).map(ofFinding);
});
afterAll(() => server.stop());

/* The second term of Spindle Rock has a fault of each kind that records can have; those of Quarter 2 are looked for where it is sealed. */
describe('the planted faults of a term', () => {
  it('are all found', () => {
    expect(found.map(ofFinding)).toEqual(expect.arrayContaining(plantedIn(faults, 'Second term')));
  });

  it('are all that blocks', () => {
    expect(blocking.filter((each) => !plantedIn(faults, 'Second term').includes(each))).toEqual([]);
  });

  it('have beside them what looks alike and is right, and of which nothing is said', () => {
    const wrong = plantedIn(decoys, 'Second term').filter((each) => found.map(ofFinding).includes(each));
    expect(wrong).toEqual([]);
  });

  it('have one in a term that was sealed, and changed since in the database itself', async () => {
    const { body } = await auditNow(await server.as('morwenna'), firstTerm);
    const foundThen = body.run!.findings.map(ofFinding);
    expect(foundThen).toEqual(expect.arrayContaining(plantedIn(faults, 'First term')));
    expect(plantedIn(decoys, 'First term').filter((decoy) => foundThen.includes(decoy))).toEqual([]);
  });

  it.each([
    ['faults', faults],
    ['decoys', decoys],
  ])('%s are of every rule but of the two that no record of a school can break by itself', (_what, list) => {
    const planted = new Set(list.map(({ rule }) => rule));
    // A book that cannot be calculated is a fault of the program; unmatched groups come with a platform.
    expect(auditRules.map(({ id }) => id).filter((id) => !planted.has(id))).toEqual([
      'unmatched-group',
      'book-not-calculated',
    ]);
  });
});
