import { describe, expect, it } from 'vitest';
import { normalPassword, passwordFault, passwordLength, proposeUsername } from './index.js';

describe('a password', () => {
  it.each([
    ['three boats and a lamp', undefined],
    ['correct horse battery staple', undefined],
    ['ööööäääåååüüüßßßéé', undefined],
    ['k7!mQ2#vL9@xR4$', undefined],
    ['fourteen-signs', 'password-short'],
    ['🦘🦘🦘🦘🦘🦘🦘🦘', 'password-short'],
    ['aaaaaaaaaaaaaaaa', 'password-common'],
    ['abababababababab', 'password-common'],
    ['passwordpassword', 'password-common'],
    ['Password12345678', 'password-common'],
    ['qwertyuiop123456789', 'password-common'],
    ['TamsinReed2025!!', 'password-common'],
    ['Wombat-Wombat-Wombat', 'password-common'],
    ['tamsin likes rope work', undefined],
    ['x'.repeat(201), 'password-long'],
  ])('"%s": %s', (password, fault) => {
    expect(passwordFault(password, ['Tamsin', 'Reed', 'tamsin.reed@port-elowen.example'])).toBe(fault);
  });

  it('is the same however a keyboard writes its letters', () => {
    expect(normalPassword('cafe\u0301 au lait \uFB01n')).toBe('caf\u00E9 au lait fin');
    expect(passwordFault('e\u0301'.repeat(14), [])).toBe('password-short');
  });

  it('of the fewest signs is taken, of one less is not', () => {
    const own = 'q8w-e7r_t6y!u5i?o4p';
    expect(passwordFault(own.slice(0, passwordLength.fewest), [])).toBeUndefined();
    expect(passwordFault(own.slice(0, passwordLength.fewest - 1), [])).toBe('password-short');
  });
});

it.each([
  [{ givenName: 'Ina', familyName: 'Voe', email: 'Ina.Voe@School.example' }, [], 'ina.voe@school.example'],
  [{ givenName: 'Ina', familyName: 'van Voe', email: '' }, [], 'ina.van.voe'],
  [{ givenName: 'Ina', familyName: 'Voe', email: 'office@s.example' }, ['office@s.example'], 'office@s.example2'],
  [{ givenName: 'Ina', familyName: 'Voe', email: '' }, ['ina.voe', 'ina.voe2'], 'ina.voe3'],
])('%o, with %o taken, signs in as %s', (person, taken, name) => {
  expect(proposeUsername(person, new Set(taken))).toBe(name);
});
