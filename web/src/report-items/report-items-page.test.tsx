import { act, fireEvent, screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { ReportItemsReply, SaveAssignmentRequest } from '#contract/report-items';
import { byRule, course, reply } from '../../test/report-items.fixture';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { assignmentDrafts } from './assignment-drafts';
import { ReportItemsPage } from './report-items-page';

const save = 'PUT /schools/1/report-items/assignment';
const nothing = { courses: [], changes: [] };
const show = async (of: ReportItemsReply = reply, answers: Answers = {}, address = 'report-items') => {
  const view = showAt(<ReportItemsPage />, {
    address,
    answers: {
      'GET /schools/1/report-items': of,
      'GET /schools/1/term-line': termLineOf(),
      'GET /set-up-check': { faults: [], checked: {} },
      'POST /schools/1/report-items/preview': nothing,
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const button = (name: RegExp | string) => screen.getByRole<HTMLButtonElement>('button', { name });
const rules = () => within(screen.getByRole('list', { name: 'Rules' })).queryAllByRole('listitem');
const sentOf = (sent: readonly { request: string; body: unknown }[]) =>
  sent.findLast(({ request }) => request === save)?.body as SaveAssignmentRequest;

beforeEach(() => act(() => assignmentDrafts.discard(1)));

describe('the report items of a school', () => {
  it('say in one sentence what courses report, and which have nothing for the transcript', async () => {
    await show();
    expect(headline()).toBe(
      '4 courses report 3 items by 0 rules and 0 exceptions; 1 course has nothing for the transcript.',
    );
  });

  it('without one begin with the first', async () => {
    await show({ ...reply, items: [], courses: [] });
    expect(headline()).toBe('No report item yet: a report card has nothing to show.');
    expect(button('New rule').disabled).toBe(true);
    expect(button('New item').disabled).toBe(false);
  });

  it('are filtered by the figures of the sentence', async () => {
    const { person, search } = await show();
    expect(screen.getByText('Course 14').tagName).toBe('B');
    await person.click(button('1 course'));
    expect(search()).toBe('?show=lacking');
    expect(screen.queryByText('Course 11')).toBeNull();
    await person.click(button('4 courses'));
    expect(screen.getByText('Course 11').tagName).toBe('B');
  });
});

describe('the rules', () => {
  it('are a draft until they are saved, on the version they began from', async () => {
    const { person, sent } = await show(reply, { [save]: made(5, { ...reply, revision: 's' }) });
    await person.click(button('New rule'));
    expect([rules().length, headline()]).toEqual([1, expect.stringContaining('by 1 rule and')]);
    await person.keyboard('{Control>}s{/Control}');
    expect(await screen.findByText('The rules and exceptions are saved.')).not.toBeNull();
    expect(sentOf(sent).revision).toBe('r');
    expect(sentOf(sent).rules).toHaveLength(1);
  });

  it('go with what they would do beside them; where that cannot be worked out, it says so', async () => {
    let answer: object = {
      courses: [course(14, [byRule(1)], false)],
      changes: [
        {
          itemId: 1,
          added: [{ id: 14, title: 'Course 14', postedGrades: 0 }],
          removed: [{ id: 12, title: 'Course 12', postedGrades: 1 }],
        },
      ],
    };
    const { person } = await show(reply, { 'POST /schools/1/report-items/preview': () => answer });
    await person.click(button('New rule'));
    expect((await screen.findByText('What the change would do')).parentElement?.textContent).toMatch(
      /1 course would report Quarter grade: Course 14\..*1 posted grade would no longer show/,
    );
    answer = { status: 500, detail: 'The disk is full.', errors: [] };
    await person.click(button('New rule'));
    expect(await screen.findByText('The disk is full.')).not.toBeNull();
    answer = nothing;
    await person.click(button('Try again'));
    expect(await screen.findByText('Nothing would change')).not.toBeNull();
  });

  it('change their order with Alt and an arrow, and each step goes back', async () => {
    const two = { ...reply, rules: [] };
    const { person } = await show(two);
    await person.click(button('New rule'));
    await person.click(button('New rule'));
    const grips = () => screen.getAllByRole('button', { name: /drag to reorder/ });
    fireEvent.keyDown(grips()[1]!, { key: 'ArrowUp', altKey: true });
    expect(rules()).toHaveLength(2);
    await person.click(button('Remove rule 1'));
    expect(rules()).toHaveLength(1);
    await person.click(button('Undo last step'));
    expect(rules()).toHaveLength(2);
    await person.click(button('Discard'));
    expect(rules()).toHaveLength(0);
  });

  it('that are refused stay a draft, and say why', async () => {
    const { person } = await show(reply, {
      [save]: { status: 409, title: 'It has changed', detail: 'Look again.', errors: [] },
    });
    await person.click(button('New rule'));
    await person.click(button(/^Save rules and exceptions/));
    expect(await screen.findByText('Look again.')).not.toBeNull();
    expect(rules()).toHaveLength(1);
  });

  it('that someone else saved meanwhile wait, until one goes on from theirs', async () => {
    act(() =>
      assignmentDrafts.change(
        1,
        'older',
        { rules: [], exceptions: [] },
        {
          rules: [],
          exceptions: [{ courseId: 11, itemId: 1, effect: 'omits', reason: 'mine' }],
        },
      ),
    );
    const { person } = await show();
    expect(screen.getByText('Someone else saved the rules').tagName).toBe('H2');
    expect(button(/^Save rules and exceptions/).disabled).toBe(true);
    await person.click(button('Go on from what is saved'));
    expect(button(/^Save rules and exceptions/).disabled).toBe(false);
  });
});

describe('an exception', () => {
  it('is made at the crossing of course and item, with a reason, and taken back there', async () => {
    const { person, sent } = await show(reply, { [save]: made(6, reply) });
    await person.click(button('Exam of Course 11: by rule 1'));
    expect(screen.getByText('Course 11 reports Exam').tagName).toBe('P');
    await person.type(screen.getByLabelText('Reason for an exception'), 'No exam this year');
    await person.click(button('Make an exception: do not report it'));
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => sentOf(sent)?.exceptions)
      .toEqual([{ courseId: 11, itemId: 2, effect: 'omits', reason: 'No exam this year' }]);
  });

  it('that stands is taken back by following the rules again', async () => {
    const exceptions = [{ courseId: 12, itemId: 2, effect: 'omits' as const, reason: '' }];
    const { person } = await show({ ...reply, exceptions });
    await person.click(button('Exam of Course 12: an exception'));
    await person.click(button('Follow the rules again'));
    expect(headline()).toContain('0 exceptions');
  });
});

describe('the order of the items', () => {
  it('is told of when it changes, with its undo', async () => {
    const { person, sent } = await show(reply, { 'PUT /schools/1/report-items/order': made(7, reply) });
    const later = screen.getAllByRole('button', { name: /^Move Quarter grade/ }).at(-1)!;
    await person.click(later);
    expect(await screen.findByText('Quarter grade is moved.')).not.toBeNull();
    expect(sent.find(({ request }) => request === 'PUT /schools/1/report-items/order')?.body).toEqual({
      itemIds: [2, 1, 3],
      seen: [1, 2, 3],
    });
  });

  it('moved twice before an answer moves two places, each step upon the one before', async () => {
    let answer!: () => void;
    const answered = new Promise<void>((resolve) => (answer = resolve));
    const inOrder = (ids: readonly number[]) => ({
      ...reply,
      items: ids.map((id) => reply.items.find((each) => each.id === id)!),
    });
    const { person, sent } = await show(reply, {
      'PUT /schools/1/report-items/order': async (body) => {
        await answered;
        return made(7, inOrder((body as { itemIds: number[] }).itemIds));
      },
    });
    const later = () => screen.getByRole('button', { name: 'Move Quarter grade right' });
    await person.click(later());
    await person.click(later());
    answer();
    const orders = () => sent.filter(({ request }) => request === 'PUT /schools/1/report-items/order');
    await expect.poll(() => orders().length).toBe(2);
    expect(orders().map(({ body }) => body)).toEqual([
      { itemIds: [2, 1, 3], seen: [1, 2, 3] },
      { itemIds: [2, 3, 1], seen: [2, 1, 3] },
    ]);
  });
});
