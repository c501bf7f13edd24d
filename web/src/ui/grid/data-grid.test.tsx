import { act, screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { showAt } from '../../../test/show-at.fixture';
import { usualView } from '#core/people';
import { showOwnView } from '../own-view';
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

describe('a list by keyboard', () => {
  const open = (more: object = {}, address = 'students?sort=name') => {
    const [onOpen, onReach] = [vi.fn<(row: Student) => void>(), vi.fn<(row: Student) => void>()];
    const view = showAt(grid({ onOpen, ...more }), { address });
    const list = screen.getByRole('grid', { name: 'Students' });
    act(() => list.focus());
    const at = () => document.getElementById(list.getAttribute('aria-activedescendant') ?? '')?.textContent;
    return { ...view, onOpen, onReach, at };
  };

  it('moves without opening, names the row it is on, and opens it with Enter or Space', async () => {
    const { person, onOpen, at } = open();
    expect(at()).toContain('Abara');
    await person.keyboard('{ArrowDown}j');
    expect([at(), onOpen.mock.calls]).toEqual(['Skerry, Ava3.1', []]);
    await person.keyboard('k{Enter}');
    expect(onOpen).toHaveBeenLastCalledWith(students[2]);
    await person.keyboard('{End} ');
    expect(onOpen).toHaveBeenLastCalledWith(students[0]);
    await person.keyboard('{Home}{ArrowUp}');
    expect(at()).toContain('Abara');
  });

  it('shows beside it each row that the cursor comes to, from the chosen one on', async () => {
    const onReach = vi.fn<(row: Student) => void>();
    const { person } = open({ onOpen: undefined, onReach, chosenKey: 'Holm, Ida' });
    await person.keyboard('j');
    expect(onReach).toHaveBeenLastCalledWith(students[0]);
    await person.keyboard('{ArrowUp}');
    expect(onReach).toHaveBeenLastCalledWith(students[2]);
  });

  it('finds a row by its first letters', async () => {
    const { person, at } = open();
    await person.keyboard('sk');
    expect(at()).toContain('Skerry');
    await person.keyboard('x');
    expect(at()).toContain('Skerry');
  });

  it('is a table to read where no row opens', () => {
    showAt(grid());
    expect(screen.queryByRole('grid')).toBeNull();
    expect(screen.getByRole('region', { name: 'Students' })).toBeTruthy();
  });

  it('says what belongs there when it has no row', () => {
    showAt(grid({ rows: [] }));
    expect(screen.getByText('Nobody yet')).toBeTruthy();
  });
});

describe('the columns of a list', () => {
  const heads = () => screen.getAllByRole('columnheader').map(({ textContent }) => textContent);

  it('are hidden and moved by a menu, stay so on the next visit, and are reset', async () => {
    const { person, unmount } = showAt(grid());
    await person.click(screen.getByRole('button', { name: 'Columns' }));
    await person.click(screen.getByRole('button', { name: 'Move Note to the left' }));
    expect(heads()).toEqual(['Student', 'Note', 'GPA']);
    await person.click(screen.getByRole('checkbox', { name: 'GPA' }));
    expect(heads()).toEqual(['Student', 'Note']);
    unmount();
    const again = showAt(grid());
    expect(heads()).toEqual(['Student', 'Note']);
    await again.person.click(screen.getByRole('button', { name: 'Columns' }));
    await again.person.click(screen.getByRole('button', { name: 'Reset columns' }));
    expect(heads()).toEqual(['Student', 'GPA', 'Note']);
  });

  it('belong to one person and one kind of address', async () => {
    showOwnView(usualView);
    const { person, unmount } = showAt(grid(), { address: 'students/7' });
    await person.click(screen.getByRole('button', { name: 'Columns' }));
    await person.click(screen.getByRole('checkbox', { name: 'GPA' }));
    unmount();
    const shownAt = (address: string) => {
      const view = showAt(grid(), { address });
      const shown = heads();
      view.unmount();
      return shown;
    };
    expect(shownAt('students/8')).toEqual(['Student', 'Note']);
    expect(shownAt('elsewhere')).toEqual(['Student', 'GPA', 'Note']);
    showOwnView(usualView);
    expect(shownAt('students/7')).toEqual(['Student', 'GPA', 'Note']);
  });

  it('become wider by Alt and an arrow', async () => {
    const { person } = showAt(grid());
    screen.getByRole('button', { name: 'GPA' }).focus();
    await person.keyboard('{Alt>}{ArrowRight}{/Alt}');
    expect(screen.getByRole('columnheader', { name: 'GPA' }).style.width).toBe('40px');
  });
});

describe('the filter of a grid', () => {
  const filter = () => screen.queryByRole('searchbox', { name: 'Filter Students' });

  it('shows the rows that have all its words, says how many, stands in the address, and ends by Esc', async () => {
    const { person, search } = showAt(grid(), { address: 'students?sort=name' });
    await person.click(screen.getByRole('button', { name: 'Filter' }));
    await person.type(filter()!, 'id hol');
    expect(order()).toEqual(['Holm']);
    expect(screen.getByRole('status').textContent).toBe('1 of 3');
    await expect.poll(search).toBe('?sort=name&filter=id+hol');
    await person.keyboard('{Escape}');
    expect([filter(), order()]).toEqual([null, ['Abara', 'Holm', 'Skerry']]);
    await expect.poll(search).toBe('?sort=name');
  });

  it('is open where the address has one, and says so where nothing is left', () => {
    showAt(grid(), { address: 'students?filter=3.9' });
    expect(order()).toEqual(['Abara']);
    expect(filter()).toHaveProperty('value', '3.9');
  });

  it('finds what is shown, not what a column sorts by; of a component, what it is found by', () => {
    const Disc = ({ gpa }: { gpa: number }) => <i>{gpa > 3 ? 'high' : 'low'}</i>;
    const own: GridColumn<Student>[] = [
      { id: 'name', header: 'Student', sortBy: ({ name }) => name, cell: ({ name }) => <b>{name.split(', ')[1]}</b> },
      {
        id: 'gpa',
        header: 'GPA',
        sortBy: ({ gpa }) => -gpa,
        findBy: ({ gpa }) => (gpa > 3 ? 'high' : 'low'),
        cell: Disc,
      },
    ];
    const shown = (text: string) => {
      const { unmount } = showAt(grid({ columns: own }), { address: `students?filter=${text}` });
      const names = screen
        .queryAllByRole('row')
        .slice(1)
        .map((row) => row.textContent);
      unmount();
      return names;
    };
    expect([shown('low'), shown('ida'), shown('holm'), shown('-2')]).toEqual([['Idalow'], ['Idalow'], [], []]);
  });

  it('that nothing has tells how to see all rows again', async () => {
    const { person } = showAt(grid(), { address: 'students?filter=nobody' });
    expect(screen.getByText('End the filter to see all rows.').tagName).toBe('DIV');
    await person.click(screen.getByRole('button', { name: 'End the filter' }));
    expect(order()).toHaveLength(3);
  });

  it.each([
    ['whose rows come as they are scrolled to', { onEnd: () => undefined }],
    ['of a dialog', { sortIn: null }],
    ['that is searched otherwise', { filterIn: null }],
  ])('is not there in a grid %s', (_what, more) => {
    showAt(grid(more), { address: 'students?filter=holm' });
    expect([screen.queryByRole('button', { name: 'Filter' }), filter(), order().length]).toEqual([null, null, 3]);
  });
});
