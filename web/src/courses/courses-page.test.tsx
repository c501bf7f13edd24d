import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { CourseImportReply, CourseReply, CoursesReply } from '#contract/courses';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { courseDrafts } from './course-drafts';
import { cellsOf, courseOf } from '../../test/courses.fixture';
import { CoursesPage } from './courses-page';

const reply = (courses: readonly CourseReply[]): CoursesReply =>
  ({ courses, defaults: [], defaultsRevision: 'd' }) as never;
const two = [
  courseOf(1, cellsOf('KN1', { title: 'Knots' })),
  courseOf(2, cellsOf('SH1', { title: 'Shore Life', department: 'Sea' })),
];
const show = (courses: readonly CourseReply[], answers: Answers = {}, address = 'courses') =>
  showAt(<CoursesPage />, {
    address,
    answers: {
      'GET /schools/1/courses': reply(courses),
      'GET /schools/1/term-line': termLineOf(),
      'GET /set-up': { faults: [], checked: {} },
      ...answers,
    },
  });
const headline = async () => (await screen.findByRole('heading', { level: 1 })).textContent;
const grid = () => screen.getByRole('grid');
const cellOf = (row: number, column: string) => {
  const heads = within(grid()).getAllByRole('columnheader');
  const at = heads.find(({ textContent }) => textContent === column)!.getAttribute('aria-colindex');
  return within(within(grid()).getAllByRole('row')[row]!)
    .getAllByRole('gridcell')
    .find((cell) => cell.getAttribute('aria-colindex') === at)!;
};
const sentTo = (request: string, sent: readonly { request: string; body: unknown }[]) =>
  sent.find((each) => each.request === request)?.body;

beforeEach(() => courseDrafts.discard(1));

describe('the courses of a school', () => {
  it('are counted by department, and typed over in place; Ctrl+S sends only what changed, on its version', async () => {
    const { person, sent } = show(two, {
      'PUT /schools/1/courses': made(7, { ...reply(two), saved: [{ id: 1, revision: 'r1' }] }),
    });
    expect(await headline()).toBe('Upper School offers 2 courses in 2 departments.');
    await person.click(cellOf(1, 'Title'));
    await person.keyboard('Knots and Splices{Enter}');
    expect(await headline()).toBe('Upper School offers 2 courses in 2 departments; 1 is changed and not saved.');
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => sentTo('PUT /schools/1/courses', sent))
      .toEqual({
        changes: [{ id: 1, revision: 'r1', cells: cellsOf('KN1', { title: 'Knots and Splices' }) }],
        removed: [],
      });
    expect((await screen.findByText('1 course saved.')).textContent).toBe('1 course saved.');
  });

  it('with a cell that cannot be are counted, and cannot be saved before it is mended', async () => {
    const { person } = show(two);
    await screen.findByRole('grid');
    await person.click(cellOf(2, 'Code'));
    await person.keyboard('KN1{Enter}');
    expect(await headline()).toMatch(/1 is changed and not saved, 2 cannot be saved yet\.$/);
    expect(screen.getByRole('button', { name: /^Save 1 course/ })).toHaveProperty('disabled', true);
    await person.click(screen.getByRole('button', { name: 'Undo last step' }));
    expect(await headline()).toBe('Upper School offers 2 courses in 2 departments.');
  });

  it('take a block from a spreadsheet: a quoted cell with a break stays one, and what finds no row is a new one', async () => {
    const { person } = show(two);
    await screen.findByRole('grid');
    await person.click(cellOf(1, 'Title'));
    await person.paste('"Knots\nand lines"\tCraft\nShore\tSea\nA third\tSea');
    await expect.poll(() => cellOf(2, 'Title').textContent).toBe('Shore');
    expect([cellOf(3, 'Title').textContent, cellOf(3, 'Code').textContent]).toEqual(['A third', 'needed']);
    expect(await headline()).toMatch(/; 3 are changed and not saved, 1 cannot be saved yet\.$/);
  });

  it('are narrowed by department and by text in the address, and all come back by the figure', async () => {
    const { person, search } = show(two, {}, 'courses?text=shore');
    await screen.findByRole('grid');
    expect(within(grid()).getAllByRole('row')).toHaveLength(2);
    await person.selectOptions(screen.getByRole('combobox', { name: 'Department shown' }), 'Craft');
    expect(screen.getByText('No matching course').tagName).toBe('P');
    await person.click(screen.getByRole('button', { name: '2 courses' }));
    expect(search()).toBe('');
    expect(within(await screen.findByRole('grid')).getAllByRole('row')).toHaveLength(3);
  });

  it('that someone else saved meanwhile are named, and kept over theirs only when told so', async () => {
    const { person, sent } = show(two, {
      'PUT /schools/1/courses': made(8, { ...reply(two), saved: [{ id: 1, revision: 'r2' }] }),
    });
    await screen.findByRole('grid');
    courseDrafts.change(
      1,
      null,
      { cells: {}, revisions: {}, removed: [] },
      {
        cells: { '1': cellsOf('KN1', { title: 'Mine' }) },
        revisions: { '1': 'older' },
        removed: [],
      },
    );
    expect((await screen.findByText('Someone else changed 1 course')).tagName).toBe('H2');
    expect(screen.getByRole('button', { name: /^Save 1 course/ })).toHaveProperty('disabled', true);
    await person.click(screen.getByRole('button', { name: 'Keep my changes over theirs' }));
    await person.click(screen.getByRole('button', { name: /^Save 1 course/ }));
    await expect
      .poll(() => sentTo('PUT /schools/1/courses', sent))
      .toMatchObject({ changes: [{ id: 1, revision: 'r1' }] });
  });

  it('come from a file as a draft that is looked at first', async () => {
    const plan = {
      fileName: 'next.csv',
      headerRow: 1,
      fields: ['code', 'title'],
      rows: [
        {
          row: 2,
          outcome: 'new',
          courseId: null,
          cells: cellsOf('NW1', { title: 'New one' }),
          faults: [],
          changed: [],
        },
        { row: 3, outcome: 'same', courseId: 1, cells: cellsOf('KN1', { title: 'Knots' }), faults: [], changed: [] },
      ],
    } as unknown as CourseImportReply;
    const { person, sent } = show(two, { 'POST /schools/1/courses/import': plan });
    await screen.findByRole('grid');
    await person.upload(screen.getByLabelText('File of courses'), new File(['x'], 'next.csv'));
    await person.click(await screen.findByRole('button', { name: 'Use 1 row as a draft' }));
    expect(await headline()).toMatch(/1 is changed and not saved\.$/);
    expect(sent.some(({ request }) => request.startsWith('PUT'))).toBe(false);
    expect(cellOf(3, 'Title').textContent).toBe('New one');
  });

  it('without one say how the first comes', async () => {
    show([]);
    expect((await screen.findByText('No course yet')).nextSibling?.textContent).toMatch(/“New course”, or import/);
  });
});
