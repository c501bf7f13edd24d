import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import { finding, rule } from '../../test/findings.fixture';
import { showAt } from '../../test/show-at.fixture';
import { AddedFindings } from './added-findings';

it('what is new since the audit leads to where it is set right', () => {
  const rules = [rule('late-grade', 'Posted late'), { ...rule('odd', 'Odd'), scope: 'section' as const }];
  const late = finding(9, 'Moor, Ren', { ruleId: 'late-grade', sentence: 'Posted after the window.' });
  const odd = finding(0, '', {
    key: 'odd',
    ruleId: 'odd',
    sentence: 'It has no weights.',
    subject: 'Knots · section 1',
  });
  showAt(<AddedFindings rules={rules} found={[late, odd]} />, { address: 'findings' });
  const [first, second] = screen.getAllByRole('listitem');
  expect(within(first!).getByText('Moor, Ren').parentElement!.textContent).toBe('Moor, Ren · Knots · section 1');
  expect(within(first!).getByRole('link', { name: 'Open the grade' }).getAttribute('href')).toBe(
    '/school/1/period/4/grade-sheets/31/1?student=9',
  );
  expect(within(second!).getByText('Knots · section 1').parentElement!.textContent).toBe('Knots · section 1');
  expect(within(second!).getByRole('link', { name: 'Open the grade book' }).getAttribute('href')).toBe(
    '/school/1/period/4/grade-books/31',
  );
});
