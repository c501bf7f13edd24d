import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { CertificateReply, CourseStandingReply } from '#contract/audit';
import { showAt } from '../../../test/show-at.fixture';
import { CourseCertificates } from '../course-certificates';
import { auditOf, registrar, run, show } from '../../../test/findings.fixture';

const course = (id: number, title: string, more: Partial<CourseStandingReply> = {}): CourseStandingReply => ({
  id,
  code: `C${id}`,
  title,
  department: 'Sea',
  sections: 2,
  blocking: 0,
  open: 0,
  changed: 0,
  isCertified: false,
  ...more,
});
const certificate: CertificateReply = {
  id: 8,
  courses: ['Knots (C1)', 'Tides (C2)'],
  by: 'Morwenna Lark',
  at: '2026-01-21T11:00:00Z',
  note: 'Department meeting.',
  grades: 62,
  waivers: 0,
  gradesHash: 'ab',
  broken: [],
};
const courses = [
  course(1, 'Knots', { open: 1 }),
  course(2, 'Tides', { blocking: 2, open: 3 }),
  course(3, 'Charts', { changed: 1 }),
  course(4, 'Bells', { department: 'Music' }),
  course(5, 'Rope', { isCertified: true }),
];
const open = async (answers = {}) => {
  const view = await show(run(), {
    'GET /session': registrar,
    'GET /audit/certificates': { certificates: [], courses },
    'POST /audit/certificates': auditOf(run()),
    ...answers,
  });
  await screen.findByRole('button', { name: /^Certify/ });
  await view.person.keyboard('c');
  const dialog = within(screen.getByRole('dialog'));
  await dialog.findByRole('group', { name: 'Courses' });
  const issue = () => dialog.getByRole('button', { name: 'Issue the certificate' });
  return { ...view, dialog, issue };
};
const rowsOf = (dialog: Awaited<ReturnType<typeof open>>['dialog']) =>
  dialog.getAllByRole('listitem').map(({ textContent }) => textContent);

describe('while something blocks, a certificate', () => {
  it('is offered for chosen courses, and each that cannot be chosen says why', async () => {
    const { dialog, issue } = await open();
    expect(rowsOf(dialog)).toEqual([
      'Knots C1ready, 1 finding left',
      'Tides C22 findings block',
      'Charts C31 grade changed after the audit',
      'Bells C4ready, nothing found',
      'Rope C5certified already, nothing found',
    ]);
    expect(dialog.getAllByRole('checkbox').map((each) => (each as HTMLInputElement).disabled)).toEqual([
      false,
      true,
      true,
      false,
      false,
    ]);
    expect(issue()).toHaveProperty('disabled', true);
  });

  it('is issued for all that are ready among those that are searched, with what is left in them', async () => {
    const { person, sent, dialog, issue } = await open();
    await person.type(dialog.getByRole('textbox', { name: 'Course, code or department' }), 'sea');
    expect(rowsOf(dialog)).toHaveLength(4);
    await person.click(dialog.getByRole('button', { name: 'Choose what is ready (1)' }));
    expect(dialog.getByText('1 course with 2 sections chosen; 1 finding left that warn or inform.').tagName).toBe('P');
    await person.click(issue());
    expect(sent.find(({ request }) => request === 'POST /audit/certificates')?.body).toEqual({
      periodId: 4,
      note: '',
      courseIds: [1],
    });
  });

  it('is taken back course by course, or all at once', async () => {
    const { person, dialog, issue } = await open();
    await person.click(dialog.getByRole('button', { name: 'Choose what is ready (2)' }));
    await person.click(dialog.getByRole('checkbox', { name: 'Knots C1' }));
    expect(dialog.getByText('1 course with 2 sections chosen.').tagName).toBe('P');
    await person.click(dialog.getByRole('button', { name: 'Choose none' }));
    expect(dialog.getByText('No course is chosen yet.').tagName).toBe('P');
    expect(issue()).toHaveProperty('disabled', true);
  });
});

describe('certificates of chosen courses', () => {
  const broken = { ...certificate, id: 9, courses: ['Bells (C4)'], broken: ['grades'] as const };

  const answers = { 'GET /audit/certificates': { certificates: [broken, certificate], courses } };

  it('are counted under the headline, with how many no longer hold', async () => {
    await show(run(), { 'GET /session': registrar, ...answers });
    const note = await screen.findByText(/2 certificates of chosen courses/);
    expect(note.textContent).toContain('of which 1 no longer holds');
    expect(within(note).getByRole('button', { name: 'Look at them' })).not.toBeNull();
  });

  it('are shown with their courses, their paper and what broke them', async () => {
    showAt(<CourseCertificates periodId={4} />, { answers });
    const [first, second] = (await screen.findAllByRole('link', { name: 'PDF' })).map((link) => link.closest('li')!);
    expect(first!.textContent).toMatch(/^Bells \(C4\)The certificate of .* no longer holds: grades changed/);
    expect(second!.textContent).toMatch(/^Knots \(C1\) and Tides \(C2\)Certified .* by Morwenna Lark: 62 grades\./);
    expect(within(second!).getByRole('link', { name: 'Audited grades' }).getAttribute('href')).toBe(
      '/api/audit/grades-file?period=4&id=8',
    );
  });
});
