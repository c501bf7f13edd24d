import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { GoneFindingReply } from '#contract/audit';
import { useDrawer } from '../shell/drawer-store';
import { run, show } from '../../test/findings.fixture';
import { showAt } from '../../test/show-at.fixture';
import { GoneFindings } from './gone-findings';

const gone = (key: string, more: Partial<GoneFindingReply>): GoneFindingReply => ({
  key,
  summary: 'Zero posted',
  sentence: 'Zero is posted.',
  subject: key,
  section: 'Knots 1',
  why: 'elsewhere',
  by: null,
  at: null,
  ...more,
});

it('what is gone says who saw to it, as far as it can be told', async () => {
  showAt(<GoneFindings periodId={4} />, {
    answers: {
      'GET /audit/gone': [
        gone('Fennick, Ada', { why: 'saved', by: 'Tamsin Reed', at: '2026-01-21T09:30:00Z' }),
        gone('Harrow, Col', { why: 'rule-off' }),
        gone('Knots 1', {}),
      ],
    },
  });
  const items = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
  expect(items).toEqual([
    'Fennick, Ada · Knots 1Zero is posted.Tamsin Reed saved the grade on Wed, Jan 21, 09:30.',
    'Harrow, Col · Knots 1Zero is posted.The rule is switched off.',
    'Knots 1Zero is posted.It was set right elsewhere than in the grade.',
  ]);
});

it('is looked at from the headline', async () => {
  const { person } = await show(run());
  await person.click(screen.getByRole('button', { name: '4 gone' }));
  expect(useDrawer.getState().shown?.title).toBe('Gone since the run before');
});
