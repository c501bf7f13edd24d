import { expect, it } from 'vitest';
import { effectOf, type RuleSettings } from './rule-settings.js';

const rule = { id: 'zero-posted', severity: 'informs' } as const;

it.each<[string, RuleSettings, RuleSettings, string]>([
  ['as it comes', {}, {}, 'informs'],
  ['as the district says', {}, { 'zero-posted': 'warns' }, 'warns'],
  ['as the school says against the district', { 'zero-posted': 'off' }, { 'zero-posted': 'warns' }, 'off'],
  ['as it comes, whatever is said of others', { 'grade-missing': 'off' }, { 'grade-missing': 'warns' }, 'informs'],
])('a rule is %s', (_what, school, district, effect) => expect(effectOf(rule, school, district)).toBe(effect));
