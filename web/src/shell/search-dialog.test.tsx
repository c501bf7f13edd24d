import { act, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { PersonReply } from '#contract/people';
import type { FindingHitReply, NamedHitReply, SearchHitReply } from '#contract/search';
import { showRoutes, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { SearchDialog } from './search-dialog';

const registrar = {
  personId: 1,
  grants: [{ role: 'registrar', schoolId: null }],
  name: 'Morwenna Lark',
} as unknown as PersonReply;
const hit = (id: number, title: string, more: Partial<NamedHitReply> = {}): NamedHitReply => ({
  id,
  kind: 'student',
  title,
  detail: `no. ${id}`,
  schoolId: 1,
  ...more,
});
const show = (answers: Answers = {}, person = registrar) => {
  const routes = [
    { path: 'today', element: <SearchDialog isOpen onOpenChange={() => undefined} person={person} /> },
    ...['students/:id', 'grade-books/:id', 'courses', 'outbox', 'findings'].map((path) => ({
      path,
      element: <h1>{path}</h1>,
    })),
  ];
  return showRoutes(routes, { address: 'today', answers: { 'GET /schools/1/term-line': termLineOf(), ...answers } });
};
const field = () => screen.getByPlaceholderText('A person, a section, a course, a finding, a screen, a period');
const headline = () => screen.findByRole('heading', { level: 1 });

describe('search', () => {
  it('goes to a screen by the beginning of its name and Enter', async () => {
    const { person } = show({ 'GET /search': [] });
    await person.type(field(), 'cours{Enter}');
    expect((await headline()).textContent).toBe('courses');
  });

  it('offers a teacher only their own screens', async () => {
    show({}, { ...registrar, grants: [{ role: 'teacher', schoolId: 1 }] });
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['Grade sheets', 'Receipts']);
  });

  it('finds people and sections, a section as its sheet and its book', async () => {
    const found = [hit(9, 'Fennick, Ada'), hit(31, 'Knots · section 1', { kind: 'section' })];
    const { person } = show({ 'GET /search': found });
    await person.type(field(), 'zz');
    expect((await screen.findAllByText('Knots · section 1')).length).toBe(2);
    await person.click(screen.getByText('Fennick, Ada'));
    expect((await headline()).textContent).toBe('students/:id');
  });

  it('leads to the school of who is found in another, which it names', async () => {
    const schools = [
      { id: 1, shortName: 'Upper School' },
      { id: 2, shortName: 'Primary' },
    ];
    const { person, address } = show({
      'GET /search': [hit(44, 'Number and Measure 6', { kind: 'section', schoolId: 2 })],
      'GET /schools': schools,
    });
    await person.type(field(), 'zz');
    expect((await screen.findAllByText('no. 44, Primary')).length).toBe(2);
    await person.click(screen.getAllByText('Number and Measure 6')[1]!);
    expect(address()).toBe('/school/2/to/grade-books/44');
  });

  it('leads to the findings of a rule, and to the one of a student, in the period that was audited', async () => {
    const finding = { kind: 'finding', schoolId: 1, periodId: 3, detail: 'Quarter 1' } as const;
    const found: FindingHitReply[] = [
      { ...finding, id: 5, title: 'Grade missing', filter: { rule: 'grade-missing' } },
      { ...finding, id: 6, title: 'Grade missing: Fennick, Ada', filter: { finding: 'grade-missing:7:1' } },
    ];
    const first = show({ 'GET /search': found });
    await first.person.type(field(), 'missing');
    expect((await screen.findByText('Grade missing')).closest('[cmdk-group]')!.textContent).toMatch(/^Findings/);
    await first.person.click(screen.getByText('Grade missing'));
    expect([first.address(), first.search()]).toEqual(['/school/1/period/3/findings', '?rule=grade-missing']);
    first.unmount();
    const second = show({ 'GET /search': found });
    await second.person.type(field(), 'fennick');
    await second.person.click(await screen.findByText('Grade missing: Fennick, Ada'));
    expect(second.search()).toBe('?finding=grade-missing%3A7%3A1');
  });

  it('never opens by Enter who was found for a text that was typed before', async () => {
    const answers: ((found: readonly SearchHitReply[]) => void)[] = [];
    const { person } = show({ 'GET /search': () => new Promise<object>((resolve) => answers.push(resolve)) });
    await person.type(field(), 'z');
    await act(async () => answers[0]!([hit(9, 'Zander, Ash')]));
    await person.type(field(), 'u');
    expect(screen.getByText('Zander, Ash').closest('[role=option]')?.getAttribute('aria-disabled')).toBe('true');
    await person.keyboard('{Enter}');
    expect(screen.queryByRole('heading', { level: 1 })).toBeNull();
    await act(async () => answers[1]!([hit(10, 'Zurich, Bo')]));
    await person.keyboard('{Enter}');
    expect((await headline()).textContent).toBe('students/:id');
  });

  it('says that it searches, that nothing matches, and that it could not look', async () => {
    let answer: () => object | Promise<object> = () => new Promise(() => undefined);
    const { person } = show({ 'GET /search': () => answer() });
    await person.type(field(), 'zq');
    expect(screen.getByText('Searching…').tagName).toBe('DIV');
    answer = () => [];
    await person.type(field(), 'q');
    expect(await screen.findByText('Nothing matches.')).not.toBeNull();
    answer = () => ({ status: 500, detail: 'The disk is full.', errors: [] });
    await person.type(field(), 'x');
    expect(await screen.findByText('The disk is full.')).not.toBeNull();
  });
});
