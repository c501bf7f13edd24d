import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { exchangeOutcomes, type ExchangeOutcome } from '#core/exchange';
import type { ExchangeImportReply } from '#contract/exchange';
import { showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { ExchangePreview } from './exchange-preview';
import { RunningZip } from './running-zip';

const counts = (some: Partial<Record<ExchangeOutcome, number>>) =>
  ({ ...Object.fromEntries(exchangeOutcomes.map((each) => [each, 0])), ...some }) as Record<ExchangeOutcome, number>;
const zipOf = (over: Partial<ExchangeImportReply> = {}): ExchangeImportReply => ({
  id: 7,
  fileName: 'winter.zip',
  version: '1.2',
  status: 'read',
  readBy: 'Morwenna Oake',
  readAt: '2026-01-21T09:00:00Z',
  stepCount: 0,
  stepsDone: 0,
  problem: null,
  previewId: 'p'.repeat(64),
  files: [{ file: 'users', mode: 'bulk', rows: 9, counts: counts({ new: 4, changed: 1, same: 3, refuse: 1 }) }],
  passedOver: [],
  encodings: [],
  ...over,
});
async function show(zip: ExchangeImportReply, answers: Answers = {}, onTaken = () => undefined) {
  const view = showAt(
    <>
      <RunningZip />
      <ExchangePreview id={7} onClose={() => undefined} onTaken={onTaken} />
    </>,
    {
      answers: {
        'GET /schools/1/term-line': termLineOf(),
        'GET /exchange/imports': [zip],
        'GET /exchange/imports/7': zip,
        'GET /exchange/imports/7/rows': { rows: [], total: 0 },
        ...answers,
      },
    },
  );
  await screen.findByRole('heading', { level: 1 });
  return view;
}
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;

describe('a zip', () => {
  it.each<[string, Partial<ExchangeImportReply>, string]>([
    ['read', {}, 'winter.zip brings 4 new rows, 1 changed; 1 is refused.'],
    [
      'that says nothing new',
      { files: [{ file: 'users', mode: 'bulk', rows: 3, counts: counts({ same: 3 }) }] },
      'All that winter.zip says is here already.',
    ],
    [
      'being imported',
      { status: 'accepting', previewId: null, stepCount: 5, stepsDone: 2 },
      'Importing winter.zip: 40 % of 5 rows.',
    ],
    ['imported', { status: 'accepted', previewId: null }, 'winter.zip was imported: 4 rows new, 1 changed, 0 deleted.'],
  ])('says in one sentence how it stands: %s', async (_what, over, says) => {
    await show(zipOf(over));
    expect(headline()).toBe(says);
  });

  it('offers no import where there is nothing to write', async () => {
    await show(zipOf({ files: [{ file: 'users', mode: 'bulk', rows: 3, counts: counts({ same: 3 }) }] }));
    expect(screen.queryByRole('button', { name: /^Import/ })).toBeNull();
  });

  it('says that it stopped and why, and which of its files are not in UTF-8', async () => {
    const { unmount } = await show(zipOf({ problem: 'A period was sealed.' }));
    expect(screen.getByText(/^The import stopped: A period was sealed\. What was written stays/)).toBeTruthy();
    unmount();
    await show(zipOf({ encodings: [{ file: 'users.csv', encoding: 'Windows-1252' }] }));
    expect(
      screen.getByText(/^users\.csv is not in UTF-8, as OneRoster wants, and was read as Windows-1252/),
    ).toBeTruthy();
  });

  it('is imported by the key that the button names, shown on its way here and above, and told of once it is there', async () => {
    let zip = zipOf();
    const underWay = { status: 'accepting', previewId: null, stepCount: 5, stepsDone: 2 } as const;
    const onTaken = vi.fn<() => undefined>();
    const { person, sent } = await show(
      zip,
      {
        'GET /exchange/imports': () => [zip],
        'GET /exchange/imports/7': () => zip,
        'POST /exchange/imports/7/accept': () => (zip = zipOf(underWay)),
      },
      onTaken,
    );
    await person.keyboard('{Control>}{Enter}{/Control}');
    expect(await screen.findByText(/^It is being imported/)).toBeTruthy();
    expect(sent.find(({ request }) => request === 'POST /exchange/imports/7/accept')!.body).toEqual({
      previewId: 'p'.repeat(64),
    });
    const above = await screen.findByRole('status');
    expect(above.textContent).toBe('Importing winter.zip 40 %');
    expect(within(above).getByRole('link').getAttribute('href')).toBe('/school/1/period/4/exchange?zip=7');
    expect(onTaken).not.toHaveBeenCalled();
    zip = zipOf({ status: 'accepted', previewId: null });
    expect(await screen.findByText('5 rows imported.')).toBeTruthy();
    await waitFor(() => expect(onTaken).toHaveBeenCalledTimes(1));
    expect(screen.queryByText('Importing winter.zip 40 %')).toBeNull();
  });
});
