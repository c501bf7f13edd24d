import { describe, expect, it } from 'vitest';
import type { NameStyle } from '#core/people';
import { inPeopleOrder } from './people-order';

const rows = [
  { id: 1, name: 'Carrow, Wren' },
  { id: 2, name: 'Dunlin, Ana Ines' },
  { id: 3, name: 'Penhale, Ana Ines' },
  { id: 4, name: 'Tregarth' },
];

describe('people', () => {
  it('by family name are as they come', () => {
    expect(inPeopleOrder(rows, 'name', { peopleOrder: 'family', names: 'both' })).toBe(rows);
  });

  it('by given name are called and sorted so, and each row keeps what else it holds', () => {
    expect(inPeopleOrder(rows, 'name', { peopleOrder: 'given', names: 'both' })).toEqual([
      { id: 2, name: 'Ana Ines Dunlin' },
      { id: 3, name: 'Ana Ines Penhale' },
      { id: 4, name: 'Tregarth' },
      { id: 1, name: 'Wren Carrow' },
    ]);
  });

  it('are called by the name that the reader wants, and stay in the order of their families', () => {
    const hal = [{ name: 'Carrow, Hale “Hal”' }, { name: 'Dunlin, Ana' }];
    const called = (names: NameStyle) => inPeopleOrder(hal, 'name', { peopleOrder: 'family', names });
    expect([called('legal'), called('preferred'), called('both')]).toEqual([
      [{ name: 'Carrow, Hale' }, { name: 'Dunlin, Ana' }],
      [{ name: 'Carrow, Hal' }, { name: 'Dunlin, Ana' }],
      hal,
    ]);
  });
});
