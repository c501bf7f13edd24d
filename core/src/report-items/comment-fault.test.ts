import { expect, it } from 'vitest';
import { letterBands } from '../../test/letter-scale.fixture.js';
import { commentFault } from './index.js';

const item = { commentRule: 'requiredBelow', commentBelow: 'C', commentLength: 20 } as const;

it.each([
  ['needed below the label', item, { label: 'C-', comment: '' }, 'comment-needed'],
  ['spaces are no comment', item, { label: 'F', comment: '  ' }, 'comment-needed'],
  ['not needed at the label itself', item, { label: 'C', comment: '' }, undefined],
  ['not needed above it', item, { label: 'A', comment: '' }, undefined],
  ['not needed where no label is posted', item, { label: null, comment: '' }, undefined],
  ['longer than the item takes', item, { label: 'A', comment: 'x'.repeat(21) }, 'comment-too-long'],
  ['as long as the item takes', item, { label: 'A', comment: 'x'.repeat(20) }, undefined],
  [
    'not taken at all',
    { ...item, commentRule: 'none' } as const,
    { label: 'A', comment: 'Good.' },
    'comment-not-taken',
  ],
  ['optional', { ...item, commentRule: 'optional' } as const, { label: 'F', comment: '' }, undefined],
])('a comment %s', (_what, rule, mark, expected) => expect(commentFault(rule, mark, letterBands)).toBe(expected));
