import { describe, expect, it } from 'vitest';
import { sayRow, sayWhy } from './words';

const planned = (row: Record<string, string>, over: object = {}) =>
  ({ file: 'users', line: 2, outcome: 'new', row, faults: [], changes: [], was: [], ...over }) as never;

describe('the words of an exchange', () => {
  it('name a row by what people know it by', () => {
    expect(sayRow(planned({ sourcedId: '1', givenName: 'Wren', familyName: 'Fathom' }))).toBe('Fathom, Wren');
    expect(sayRow(planned({ sourcedId: '1', title: 'Knots' }))).toBe('Knots');
    expect(sayRow(planned({ sourcedId: '1', userSourcedId: 'u1', classSourcedId: 'c1' }))).toBe('u1 in c1');
  });

  it('say the field that is wrong, or what would change', () => {
    const faults = [{ field: 'role', says: '"pilot" is none of student, teacher' }];
    expect(sayWhy(planned({}, { faults }))).toBe('role: "pilot" is none of student, teacher.');
    expect(
      sayWhy(
        planned({ title: 'Knots', grades: '' }, { changes: ['title', 'grades', 'code'], was: ['Ropes', '09', ''] }),
      ),
    ).toBe('title becomes “Knots”, was “Ropes”; grades becomes empty, was “09”; code becomes empty');
  });
});
