import { expect, it } from 'vitest';
import { whatBroke, type CertifiedNow } from './certificate.js';
import { noExceptions } from './rule-settings.js';

const plain = { threshold: null, exceptions: noExceptions };
const rules = [
  { id: 'grade-missing', version: 1, severity: 'blocks', ...plain },
  { id: 'zero-posted', version: 2, severity: 'informs', ...plain },
] as const;
const certified = { gradesHash: 'ab', rules, waived: ['zero-posted:1:::7'] };

it.each<[string, Partial<CertifiedNow>, readonly string[]]>([
  ['nothing changed', {}, []],
  ['the rules are told in another order', { rules: rules.toReversed() }, []],
  ['one more finding is waived', { waived: ['zero-posted:1:::7', 'zero-posted:2:::7'] }, []],
  ['a grade changed', { gradesHash: 'ac' }, ['grades']],
  ['a finding blocks', { blocking: 1 }, ['findings']],
  ['a waiver ended', { waived: [] }, ['waivers']],
  ['a rule has a new version', { rules: [rules[0], { ...rules[1], version: 3 }] }, ['rules']],
  ['a rule came', { rules: [...rules, { id: 'new', version: 1, severity: 'warns', ...plain }] }, ['rules']],
  ['a rule is switched off', { rules: [{ ...rules[0], severity: 'off' }, rules[1]] }, ['rules']],
  ['a rule begins elsewhere', { rules: [{ ...rules[0], threshold: 20 }, rules[1]] }, ['rules']],
  [
    'a rule leaves a course alone',
    { rules: [{ ...rules[0], exceptions: { departments: [], courses: [7] } }, rules[1]] },
    ['rules'],
  ],
  ['a rule went', { rules: rules.slice(1) }, ['rules']],
  ['all of it', { gradesHash: '', blocking: 9, waived: [], rules: [] }, ['grades', 'findings', 'waivers', 'rules']],
])('a certificate, when %s', (_what, now, broken) => {
  expect(whatBroke(certified, { ...certified, blocking: 0, ...now })).toEqual(broken);
});
