import { describe, expect, it } from 'vitest';
import { inPeopleOrder } from './people-order';

const rows = [
  { id: 1, name: 'Carrow, Wren' },
  { id: 2, name: 'Dunlin, Ana Ines' },
  { id: 3, name: 'Penhale, Ana Ines' },
  { id: 4, name: 'Tregarth' },
];

describe('people', () => {
  it('by family name are as they come', () => {
    expect(inPeopleOrder(rows, 'name', 'family')).toBe(rows);
  });

  it('by given name are called and sorted so, and each row keeps what else it holds', () => {
    expect(inPeopleOrder(rows, 'name', 'given')).toEqual([
      { id: 2, name: 'Ana Ines Dunlin' },
      { id: 3, name: 'Ana Ines Penhale' },
      { id: 4, name: 'Tregarth' },
      { id: 1, name: 'Wren Carrow' },
    ]);
  });
});
