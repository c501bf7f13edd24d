import { describe, expect, it } from 'vitest';
import { differences } from './index.js';

describe('what a change changed of a thing', () => {
  it('is told fact by fact, in words, and nothing of what stayed', () => {
    const before = {
      additions: { regular: '0', honours: '0.5' },
      mostAddedCredits: null,
      countsInGpa: true,
      digits: 3,
    };
    const after = { additions: { regular: '0', honours: '1' }, mostAddedCredits: '4', countsInGpa: false, digits: 3 };
    expect(differences(before, after)).toEqual([
      { field: 'additions, honours', before: '0.5', after: '1' },
      { field: 'counts in gpa', before: 'yes', after: 'no' },
      { field: 'most added credits', before: '', after: '4' },
    ]);
  });

  it('knows the members of a list by their code, label or number, wherever they stand', () => {
    const before = {
      codes: [
        { code: 'INC', meaning: 'Incomplete' },
        { code: 'EXM', meaning: 'Exempt' },
      ],
    };
    const after = {
      codes: [
        { code: 'EXM', meaning: 'Exempt' },
        { code: 'INC', meaning: 'Not complete' },
      ],
    };
    expect(differences(before, after)).toEqual([
      { field: 'codes, INC, meaning', before: 'Incomplete', after: 'Not complete' },
    ]);
    expect(differences([1, 2], [1, 3, 4])).toEqual([
      { field: '2', before: '2', after: '3' },
      { field: '3', before: '', after: '4' },
    ]);
  });

  it('of a thing that was made or removed is all of it', () => {
    expect(differences(null, { name: 'Effort', ordinals: [2, 4] })).toEqual([
      { field: 'name', before: '', after: 'Effort' },
      { field: 'ordinals, 1', before: '', after: '2' },
      { field: 'ordinals, 2', before: '', after: '4' },
    ]);
    expect(differences({ name: 'Effort' }, null)).toEqual([{ field: 'name', before: 'Effort', after: '' }]);
    expect(differences(null, null)).toEqual([]);
  });
});
