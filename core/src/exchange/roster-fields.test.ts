import { describe, expect, it } from 'vitest';
import { fieldsToKeep, withRosterFields } from './roster-fields.js';
import { sameValue } from './same-value.js';

const everything = () => true;

describe('what a roster said', () => {
  it('is kept where Wombat would say something else, also where it said nothing, and goes out again', () => {
    const row = {
      sourcedId: 'u',
      username: 'ava.s',
      enabledUser: 'true',
      middleName: '',
      phone: '',
      familyName: 'Holm',
    };
    const made = {
      sourcedId: 'u',
      username: 'ava@skerry.example',
      enabledUser: 'true',
      phone: '1',
      familyName: 'Holm',
    };
    const kept = fieldsToKeep('users', row, made, everything)!;
    expect(kept).toEqual({ said: { username: 'ava.s', phone: '' }, beside: {} });
    expect(withRosterFields('users', made, kept)).toEqual({ ...made, username: 'ava.s', phone: '' });
    expect(fieldsToKeep('users', made, made, everything)).toBeUndefined();
  });

  it('holds only as long as the part of it that Wombat works with', () => {
    const [row, made] = [{ subjects: 'Crafts,Sea' }, { subjects: 'Crafts' }];
    const kept = fieldsToKeep('courses', row, made, everything);
    expect(withRosterFields('courses', made, kept)).toEqual(row);
    expect(withRosterFields('courses', { subjects: 'Music' }, kept)).toEqual({ subjects: 'Music' });
    const said = fieldsToKeep(
      'results',
      { sourcedId: 'r', textScore: 'B', score: '7' },
      { sourcedId: 'x', score: '7' },
      everything,
    );
    expect(withRosterFields('results', { sourcedId: 'x', score: '8' }, said)).toEqual({ sourcedId: 'r', score: '8' });
  });

  it('leads to nothing that Wombat does not hold, and holds no password', () => {
    const row = { orgSourcedIds: 'a,gone', password: 'secret', agentSourcedIds: 'g' };
    const isHeld = (_file: string, id: string) => id !== 'gone';
    expect(fieldsToKeep('users', row, { orgSourcedIds: 'b' }, isHeld)).toEqual({
      said: { orgSourcedIds: 'a' },
      beside: {},
    });
    expect(fieldsToKeep('users', { orgSourcedIds: 'gone' }, { orgSourcedIds: 'b' }, isHeld)).toBeUndefined();
  });
});

describe('two values of a field are the same', () => {
  it.each([
    ['results', 'score', '17.50', '17.5', true],
    ['results', 'score', '17.5', '17.51', false],
    ['lineItems', 'dueDate', '2025-12-01T23:59:00Z', '2025-12-01', true],
    ['users', 'enabledUser', 'TRUE', 'true', true],
    ['users', 'identifier', '0012', '12', false],
    ['classes', 'classCode', '07', '7', false],
    ['courses', 'metadata.wombat.credits', '1.0000', '1', true],
  ] as const)('%s %s: %s and %s, %s', (file, field, one, other, same) => {
    expect(sameValue(file, field, one, other)).toBe(same);
  });
});
