import { fireEvent, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { SaveScaleRequest, ScalesReply } from '#contract/scales';
import { made, showAt, type Answers } from '../../test/show-at.fixture';
import { termLineOf } from '../../test/term-line.fixture';
import { scaleDrafts } from './scale-drafts';
import { bandOf, effectOf, placementOf, scaleOf, scalesReplyOf } from '../../test/scales.fixture';
import { ScalesPage } from './scales-page';

const show = async (reply: ScalesReply, answers: Answers = {}, address = 'scales') => {
  const view = showAt(<ScalesPage />, {
    address,
    answers: {
      'GET /scales': reply,
      'GET /schools/1/term-line': termLineOf(),
      'GET /set-up-check': { faults: [], checked: {} },
      'POST /scales/5/preview': effectOf(),
      ...answers,
    },
  });
  await screen.findByRole('heading', { level: 1 });
  return view;
};
const letters = () => show(scalesReplyOf([scaleOf()]));
const headline = () => screen.getByRole('heading', { level: 1 }).textContent;
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label, { selector: 'input, select' });
const button = (name: RegExp | string) => screen.getByRole<HTMLButtonElement>('button', { name });
const bodyOf = (sent: readonly { request: string; body: unknown }[], request: string) =>
  sent.find((each) => each.request === request)?.body;

afterEach(() => scaleDrafts.discard(5));

describe('a scale', () => {
  it('says where it is in force and how many grades lie just below a cut-off', async () => {
    await letters();
    expect(headline()).toBe(
      'Letters is in force in 12 courses; 1 grade of Quarter 2 lies less than half a point below a cut-off.',
    );
    expect(screen.getAllByRole('slider').map((slider) => slider.getAttribute('aria-valuetext'))).toEqual([
      'A begins at 90',
      'B begins at 80',
    ]);
  });

  it('that is typed over is a draft at once, with how many it would move; Undo last step goes back', async () => {
    const { person } = await letters();
    await person.clear(field('Cut-off of A'));
    await person.type(field('Cut-off of A'), '89,5');
    await person.tab();
    expect(field('Cut-off of A').value).toBe('89.5');
    expect(headline()).toMatch(/, and the draft would move 1 up\.$/);
    await person.click(button('Discard draft'));
    expect([field('Cut-off of A').value, headline()]).toEqual(['90.0', expect.stringMatching(/cut-off\.$/)]);
  });

  it.each([
    ['Label of B', 'A', 'A is listed twice; each label may be used once.'],
    ['Label of B', 'INC', 'INC is a code as well; a grade typed so could be either. Choose another label.'],
    ['Cut-off of A', '9x', 'a percentage from 0 to 100 with at most two decimals'],
    ['Grade points of A', 'four', 'grade points such as 3.7, or empty'],
  ])('with %s “%s” says beneath the row what is wrong, and cannot be saved', async (label, text, says) => {
    await letters();
    fireEvent.change(field(label), { target: { value: text } });
    expect(screen.getAllByRole('alert').some(({ textContent }) => textContent?.includes(says))).toBe(true);
    expect(button(/^Preview and save/).disabled).toBe(true);
  });

  it('is moved on its ruler by key: a step of its last decimal, with Shift ten, and never past its neighbour', async () => {
    await letters();
    const grip = () => screen.getByRole('slider', { name: 'Cut-off of A' });
    fireEvent.keyDown(grip(), { key: 'ArrowLeft' });
    expect(grip().getAttribute('aria-valuenow')).toBe('89.9');
    fireEvent.keyDown(grip(), { key: 'ArrowLeft', shiftKey: true });
    expect(grip().getAttribute('aria-valuenow')).toBe('88.9');
    for (let step = 0; step < 12; step += 1) fireEvent.keyDown(grip(), { key: 'ArrowLeft', shiftKey: true });
    expect(Number(grip().getAttribute('aria-valuenow'))).toBeGreaterThan(80);
  });

  it('gets, loses and reorders bands; each is one step', async () => {
    const { person } = await letters();
    const labels = () => screen.getAllByLabelText<HTMLInputElement>(/^Label of/).map(({ value }) => value);
    await person.click(button('Add a band'));
    expect(labels()).toEqual(['A', 'B', 'F', '']);
    await person.click(button('Remove new band'));
    await person.click(button('Move B up'));
    expect(labels()).toEqual(['B', 'A', 'F']);
    await person.click(button('Undo last step'));
    expect(labels()).toEqual(['A', 'B', 'F']);
  });

  it('tries any value, and says what would be right where it is none', async () => {
    const { person } = await letters();
    const tried = screen.getByLabelText('Try');
    await person.clear(tried);
    await person.type(tried, '79.95');
    expect(screen.getByText(/rounds to/).textContent).toMatch(/80.*B3\.0/);
    await person.type(tried, 'x');
    expect(screen.getByText('type a percentage from 0 to 200, such as 89.46').tagName).toBe('SPAN');
  });
});

describe('saving a scale', () => {
  const drafted = async (answers: Answers = {}) => {
    const view = await show(scalesReplyOf([scaleOf()]), answers);
    fireEvent.change(field('Cut-off of A'), { target: { value: '89.5' } });
    await view.person.keyboard('{Control>}s{/Control}');
    return view;
  };

  it('shows first whom it would move; then the same key saves it on the version it began from', async () => {
    const { person, sent } = await drafted({ 'PUT /scales/5': made(7, scalesReplyOf([scaleOf()])) });
    const dialog = screen.getByRole('dialog', { name: 'What the draft of Letters would do' });
    expect(await within(dialog).findByText(/would change their label/)).toHaveProperty(
      'textContent',
      '1 of 5 grades of Quarter 2 would change their label, of 1 student; nobody would pass or fail anew and the mean GPA of the period would go from 3.125 to 3.250.',
    );
    expect(within(dialog).getByText('Knots · section 1, Quarter grade: 89.5 B → A')).not.toBeNull();
    await person.keyboard('{Control>}s{/Control}');
    expect(await screen.findByText(/^Version 3 is used from Quarter 2 on\./)).not.toBeNull();
    const { basedOnVersion, fromPeriodId, bands } = bodyOf(sent, 'PUT /scales/5') as SaveScaleRequest;
    expect([basedOnVersion, fromPeriodId, bands.map(({ lowest }) => lowest)]).toEqual([2, 4, ['89.5', '80.0', '0.0']]);
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Discard draft' })).toBeNull();
  });

  it('that is refused for a band goes back to the draft, with the reason beneath the row', async () => {
    const { person } = await drafted({
      'PUT /scales/5': {
        status: 422,
        detail: 'Something needs correcting.',
        errors: [{ field: 'bands.0.lowest', detail: 'A follower would have no room.' }],
      },
    });
    await screen.findByText(/would change their label/);
    await person.keyboard('{Control>}s{/Control}');
    expect(await screen.findByText('A follower would have no room.')).not.toBeNull();
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(field('Cut-off of A').value).toBe('89.5');
  });

  it('cannot begin where the preview could not be worked out, and tries again when told to', async () => {
    const failed = { status: 500, detail: 'The disk is full.', errors: [] };
    let answer: object = failed;
    const { person, sent } = await drafted({ 'POST /scales/5/preview': () => answer });
    expect((await screen.findByText('The disk is full.')).tagName).toBe('P');
    expect(button('Save as version 3 from Quarter 2 on').disabled).toBe(true);
    answer = effectOf({ changed: 0, moves: [], students: [] });
    await person.click(button('Try again'));
    expect(await screen.findByText('No label of the 5 grades of Quarter 2 would change.')).not.toBeNull();
    await person.click(button('Back to the draft'));
    expect(bodyOf(sent, 'PUT /scales/5')).toBeUndefined();
  });

  it('waits where someone else saved first, until one goes on from theirs', async () => {
    const { bands } = scaleOf();
    scaleDrafts.change(5, 1, bands, [bandOf('A', '92.0'), ...bands.slice(1)], false);
    const { person } = await letters();
    expect(screen.getByText('Someone else saved this scale').tagName).toBe('H2');
    expect(button(/^Preview and save/).disabled).toBe(true);
    await person.click(button('go on from version 2'));
    expect(button(/^Preview and save/).disabled).toBe(false);
    expect(field('Cut-off of A').value).toBe('92.0');
  });
});

describe('a scale that follows another', () => {
  const tie = { toId: 6, toName: 'College letters', cutOffShift: '-0.5', pointsShift: '0' };

  it('says so, and is not typed over', async () => {
    await show(scalesReplyOf([scaleOf({ tie })]));
    expect(screen.getByText('Follows College letters').tagName).toBe('H2');
    expect(field('Cut-off of A').closest('fieldset')?.disabled).toBe(true);
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Cut-off of A' }), { key: 'ArrowLeft' });
    expect(screen.queryByRole('button', { name: 'Discard draft' })).toBeNull();
  });

  it('begins to after a look at what that does; without one a name is saved at once', async () => {
    const other = scaleOf({ id: 6, name: 'College letters', coursesUsingIt: 0 });
    const { person, sent } = await show(scalesReplyOf([scaleOf(), other]), {
      'POST /scales/5/tie/preview': effectOf(),
      'PUT /scales/5/facts': made(8, scalesReplyOf([scaleOf({ tie }), other])),
    });
    await person.click(button('Name and tie'));
    await person.selectOptions(field('Follows another scale'), 'College letters');
    await person.click(button('Preview and save'));
    await person.click(await screen.findByRole('button', { name: 'Tie it from Quarter 2 on' }));
    expect(await screen.findByText('Letters is changed.')).not.toBeNull();
    expect(bodyOf(sent, 'PUT /scales/5/facts')).toEqual({
      revision: 'r5',
      name: 'Letters',
      tie: { toId: 6, cutOffShift: '-0.5', pointsShift: '0' },
    });
  });
});

describe('a new scale', () => {
  const added = scaleOf({ id: 8, name: 'Levels', kind: 'level', highestLevel: '4', coursesUsingIt: 0 });

  it('of levels asks for the highest, is shown once it is added, and can be undone from the notice', async () => {
    const { person, sent, search } = await show(scalesReplyOf([scaleOf()]), {
      'POST /schools/1/scales': made(9, scalesReplyOf([scaleOf(), added])),
    });
    await person.click(button('New scale'));
    await person.type(field('Name'), 'Levels');
    await person.selectOptions(field('Kind'), 'level scale');
    expect(field('Highest level').value).toBe('4');
    await person.click(button('Add the scale'));
    expect(await screen.findByText('Levels is added.')).not.toBeNull();
    expect(screen.getByRole('button', { name: 'Undo' }).tagName).toBe('BUTTON');
    await expect.poll(search).toBe('?scale=8');
    expect(bodyOf(sent, 'POST /schools/1/scales')).toMatchObject({ kind: 'level', highestLevel: '4', fromPeriodId: 4 });
  });

  it('with a name that is taken keeps what was typed and says so beside the field', async () => {
    const { person } = await show(scalesReplyOf([]), {
      'POST /schools/1/scales': {
        status: 422,
        detail: '',
        errors: [{ field: 'name', detail: 'a name that no other scale has' }],
      },
    });
    expect(headline()).toBe('No scale is in force in Quarter 2.');
    await person.click(button('New scale'));
    await person.type(field('Name'), 'Letters');
    await person.click(button('Add the scale'));
    expect(await screen.findByText('a name that no other scale has')).not.toBeNull();
    expect([field('Name').value, field('Name').getAttribute('aria-invalid')]).toEqual(['Letters', 'true']);
  });
});

describe('bands from another program', () => {
  it('that leave a gap are settled first, and become a draft only then', async () => {
    const { person } = await letters();
    await person.click(button('Import bands'));
    await person.click(screen.getByLabelText('Table of bands'));
    await person.paste('A\t90\t100\t4.0\nB\t80\t88\t3.0\nF\t0\t79.9\t0');
    const use = () => button('Use 3 bands as the draft');
    expect(use().disabled).toBe(true);
    await person.click(button('B reaches up'));
    expect(use().disabled).toBe(false);
    await person.click(use());
    expect(
      screen.getAllByLabelText<HTMLInputElement>(/^Cut-off of/, { selector: 'input' }).map(({ value }) => value),
    ).toEqual(['90.0', '80.0', '0.0']);
  });

  it('say which rows have no number', async () => {
    const { person } = await letters();
    await person.click(button('Import bands'));
    await person.click(screen.getByLabelText('Table of bands'));
    await person.paste('A\t90\nB\nC');
    expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
      'Row 2 has no number for its lowest value.',
      'Row 3 has no number for its lowest value.',
    ]);
  });
});

describe('where a scale is used', () => {
  const second = scaleOf({ id: 6, name: 'College letters' });
  const places = (answers: Answers, placements = [placementOf()]) =>
    show(scalesReplyOf([scaleOf(), second], { placements }), answers, 'scales?view=in-force');
  const preview = { 'POST /schools/1/scale-placements/preview': effectOf({ grades: 0, students: [] }) };

  it('is put at a department only after a look, from the period on', async () => {
    const { person, sent } = await places({
      ...preview,
      'PUT /schools/1/scale-placements': made(10, scalesReplyOf([scaleOf(), second])),
    });
    expect(headline()).toBe('1 place sets the scales of Upper School in Quarter 2; every course has one.');
    await person.selectOptions(field('Where'), 'A department');
    await person.selectOptions(field('Which'), 'Sea');
    await person.selectOptions(field('Scale'), 'College letters');
    await person.click(button('Preview and use it'));
    expect(await screen.findByText('No grade of Quarter 2 is concerned.')).not.toBeNull();
    expect(bodyOf(sent, 'PUT /schools/1/scale-placements')).toBeUndefined();
    await person.keyboard('{Control>}s{/Control}');
    await expect
      .poll(() => bodyOf(sent, 'PUT /schools/1/scale-placements'))
      .toMatchObject({ kind: 'department', department: 'Sea', scaleId: 6, isLocked: false, fromPeriodId: 4 });
  });

  it('can be locked for all below, and inherited again', async () => {
    const { person, sent } = await places(preview, [
      placementOf({ kind: 'department', department: 'Sea', place: 'Sea' }),
    ]);
    await person.click(button('lock'));
    expect(screen.getByRole('dialog', { name: 'What locking the scale of Sea would do' })).not.toBeNull();
    await person.keyboard('{Escape}');
    await person.click(button('Inherit'));
    expect(await screen.findByRole('button', { name: 'Inherit from Quarter 2 on' })).not.toBeNull();
    expect(bodyOf(sent.toReversed(), 'POST /schools/1/scale-placements/preview')).toMatchObject({ scaleId: null });
  });
});
