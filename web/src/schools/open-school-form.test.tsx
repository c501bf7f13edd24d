import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { OpenSchoolForm } from './open-school-form';

const show = (answers: Answers = {}, isFirst = true) => showAt(<OpenSchoolForm isFirst={isFirst} />, { answers });
const field = (name: string) => screen.getByRole('textbox', { name });
const open = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Open the school' });
const periods = () =>
  within(screen.getByRole('table'))
    .getAllByRole('rowheader')
    .map(({ textContent }) => textContent);

/** What is typed over what stands there. */
async function fill(person: ReturnType<typeof show>['person'], of: Readonly<Record<string, string>>): Promise<void> {
  for (const [name, text] of Object.entries(of)) {
    await person.clear(field(name));
    await person.type(field(name), text);
    await person.tab();
  }
}

const names = { 'Name of the school': 'Skerry Upper School', 'Short name': 'Skerry', Code: 'SKY' };
const year = { 'Name of the year': '2026–27', 'First day': '2026-09-01', 'Last day': '2027-06-30' };

describe('a first school by hand', () => {
  it('is asked for its district, name and year, and leads on to its people', async () => {
    const { person, sent, address } = show({ 'POST /schools': made(3, { schoolId: 1, periodId: 4 }) });
    await fill(person, { 'Name of the district': 'Skerry Islands', ...names });
    expect(open().disabled).toBe(false);
    await fill(person, year);
    await person.selectOptions(screen.getByRole('combobox', { name: 'Divided into' }), 'trimesters');
    expect(periods()).toEqual(['Trimester 1', 'Trimester 2', 'Trimester 3']);
    await person.click(open());
    expect(sent.find(({ request }) => request === 'POST /schools')?.body).toMatchObject({
      district: { name: 'Skerry Islands', timeZone: expect.any(String) as unknown },
      name: 'Skerry Upper School',
      shortName: 'Skerry',
      code: 'SKY',
      year: { name: '2026–27', startsOn: '2026-09-01', endsOn: '2027-06-30', division: 'trimesters' },
    });
    await expect.poll(address).toBe('/school/1/period/4/people');
  });

  it('shows its periods in their order, and none where the year is too short', async () => {
    const { person } = show();
    expect(periods()).toEqual(['Semester 1', 'Quarter 1', 'Quarter 2', 'Semester 2', 'Quarter 3', 'Quarter 4']);
    await fill(person, { ...names, 'Name of the district': 'S', 'First day': '2026-09-01', 'Last day': '2026-09-20' });
    expect(screen.getByText('from 56 to 400 days after the first').textContent).toMatch(/56/);
    expect(open().disabled).toBe(true);
  });

  it('that is refused says why at the field, and keeps what was typed', async () => {
    const refused: Problem = {
      type: 'about:blank',
      title: 'Some fields are wrong',
      status: 422,
      detail: 'Some fields are wrong.',
      code: 'fields-wrong',
      errors: [{ field: 'code', detail: 'a code that no other school has' }],
    };
    const { person } = show({ 'POST /schools': refused }, false);
    expect(screen.queryByRole('textbox', { name: 'Name of the district' })).toBeNull();
    await fill(person, { ...names, ...year });
    await person.click(open());
    expect((await screen.findByText('a code that no other school has')).tagName).toBe('P');
    expect((field('Code') as HTMLInputElement).value).toBe('SKY');
  });
});
