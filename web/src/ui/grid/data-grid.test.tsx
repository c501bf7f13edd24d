import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { showAt } from '../../shell/show-at.fixture';
import { DataGrid, type GridColumn } from './data-grid';

interface Student {
  readonly name: string;
  readonly gpa: number;
}
const students: Student[] = [
  { name: 'Skerry, Ava', gpa: 3.1 },
  { name: 'Abara, Chidi', gpa: 3.9 },
  { name: 'Holm, Ida', gpa: 2.4 },
];
const columns: GridColumn<Student>[] = [
  { id: 'name', header: 'Student', sortBy: ({ name }) => name, cell: ({ name }) => name },
  { id: 'gpa', header: 'GPA', sortBy: ({ gpa }) => gpa, cell: ({ gpa }) => gpa.toFixed(1) },
  { id: 'note', header: 'Note', cell: () => '' },
];
const grid = (more: object = {}) => (
  <DataGrid
    label="Students"
    columns={columns}
    rows={students}
    rowKey={({ name }) => name}
    empty={<p>Nobody yet</p>}
    {...more}
  />
);
const order = () =>
  within(screen.getByRole('table'))
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.textContent.slice(0, -3).split(',')[0]);

describe('the order of a grid', () => {
  it('stands in the address beside what is there, turned round by a second press and gone by a third', async () => {
    const { person, search } = showAt(grid(), { address: 'students?text=a' });
    expect(order()).toEqual(['Skerry', 'Abara', 'Holm']);
    await person.click(screen.getByRole('button', { name: 'Student' }));
    expect([order(), search()]).toEqual([['Abara', 'Holm', 'Skerry'], '?text=a&sort=name']);
    await person.click(screen.getByRole('button', { name: /Student/ }));
    expect([order(), search()]).toEqual([['Skerry', 'Holm', 'Abara'], '?text=a&sort=-name']);
    await person.click(screen.getByRole('button', { name: /Student/ }));
    expect([order(), search()]).toEqual([['Skerry', 'Abara', 'Holm'], '?text=a']);
  });

  it('is the one that the address asks for, and says so to whoever does not see the arrow', () => {
    showAt(grid(), { address: 'students?sort=-gpa' });
    expect(order()).toEqual(['Abara', 'Skerry', 'Holm']);
    expect(screen.getByRole('columnheader', { name: /GPA/ })).toHaveProperty('ariaSort', 'descending');
  });

  it.each(['size', 'note', '-'])(
    'is as it comes where the address asks for a column that does not sort: %s',
    (column) => {
      showAt(grid(), { address: `students?sort=${column}` });
      expect(order()).toEqual(['Skerry', 'Abara', 'Holm']);
    },
  );

  it('of a dialog leaves the address alone', async () => {
    const { person, search } = showAt(grid({ sortIn: null }), { address: 'students?sort=-gpa' });
    expect(order()).toEqual(['Skerry', 'Abara', 'Holm']);
    await person.click(screen.getByRole('button', { name: 'GPA' }));
    expect(order()[0]).not.toBe('Skerry');
    expect(search()).toBe('?sort=-gpa');
  });
});

describe('a grid by keyboard', () => {
  it('goes from row to row in the order shown, and stops at either end', async () => {
    const onChoose = vi.fn<(row: Student) => void>();
    const { person } = showAt(grid({ onChoose, chosenKey: 'Holm, Ida' }), { address: 'students?sort=name' });
    screen.getByRole('region', { name: 'Students' }).focus();
    await person.keyboard('j');
    expect(onChoose).toHaveBeenLastCalledWith(students[0]);
    await person.keyboard('{ArrowUp}');
    expect(onChoose).toHaveBeenLastCalledWith(students[1]);
  });

  it('says what belongs there when it has no row', () => {
    showAt(grid({ rows: [] }));
    expect(screen.getByText('Nobody yet')).toBeTruthy();
  });
});
