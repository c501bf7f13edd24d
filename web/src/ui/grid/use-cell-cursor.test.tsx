import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { EditCell } from './edit-cell';
import { useCellCursor } from './use-cell-cursor';

interface ScoresProps {
  readonly names: readonly string[];
  readonly tests?: readonly string[];
}

/** People down, tests across; what is typed is kept by the names of both. */
function Scores({ names, tests = ['test'] }: ScoresProps) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const nameOf = (row: number, column: number) => `${names[row]} ${tests[column]}`;
  const cells = useCellCursor({
    rows: names.length,
    keyAt: (row) => names[row],
    columns: tests.length,
    columnKeyAt: (column) => tests[column],
    textAt: (row, column) => texts[nameOf(row, column)] ?? '',
    onEdit: (edits) => {
      const typed = edits.map(([row, column, text]) => [nameOf(row, column), text]);
      setTexts((before) => ({ ...before, ...(Object.fromEntries(typed) as Record<string, string>) }));
    },
    onReach: () => undefined,
  });
  return (
    <div {...cells.grid} aria-label="scores">
      {names.map((name, row) => (
        <div key={name} role="row">
          {tests.map((test, column) => (
            <EditCell
              key={test}
              row={row}
              column={column}
              ariaColumn={column + 1}
              cursor={cells.inRow(row)}
              actions={cells.actions}
              label={nameOf(row, column)}
              look=""
            >
              {name}
              {tests.length > 1 && ` ${test}`}: {texts[nameOf(row, column)] ?? ''}
            </EditCell>
          ))}
        </div>
      ))}
    </div>
  );
}

const told = () => screen.getAllByRole('gridcell').map(({ textContent }) => textContent);
const cellOf = (name: string) => screen.getByText((text) => text.startsWith(`${name}:`));

/** Shows people; answers with what shows others in their place. */
function show(...names: readonly string[]) {
  const { rerender } = render(<Scores names={names} />);
  return (...next: readonly string[]) => rerender(<Scores names={next} />);
}

it('what is typed goes to the row in which it was begun, wherever that stands by then', async () => {
  const person = userEvent.setup();
  const rowsBecome = show('Ada', 'Bo', 'Cleo');
  await person.click(cellOf('Bo'));
  await person.keyboard('7');
  rowsBecome('Aaron', 'Ada', 'Bo', 'Cleo');
  await person.keyboard('5{Enter}');
  expect(told()).toEqual(['Aaron: ', 'Ada: ', 'Bo: 75', 'Cleo: ']);
  await person.keyboard('9{Enter}');
  expect(told()).toEqual(['Aaron: ', 'Ada: ', 'Bo: 75', 'Cleo: 9']);
});

it('a paste after rows changed places begins at the row that had the cursor', async () => {
  const person = userEvent.setup();
  const rowsBecome = show('Ada', 'Bo', 'Cleo');
  await person.click(cellOf('Ada'));
  rowsBecome('Cleo', 'Ada', 'Bo');
  await person.paste('1\n2');
  expect(told()).toEqual(['Cleo: ', 'Ada: 1', 'Bo: 2']);
});

it('what was begun in a row that went is for no other; the cursor stays on a row that is there', async () => {
  const person = userEvent.setup();
  const rowsBecome = show('Ada', 'Bo', 'Cleo');
  await person.click(cellOf('Cleo'));
  await person.keyboard('7');
  rowsBecome('Ada', 'Bo');
  expect(screen.queryByRole('textbox')).toBeNull();
  expect(told()).toEqual(['Ada: ', 'Bo: ']);
  await person.keyboard('4{Enter}');
  expect(told()).toEqual(['Ada: ', 'Bo: 4']);
  rowsBecome();
  rowsBecome('Dara');
  await person.keyboard('6{Enter}');
  expect(told()).toEqual(['Dara: 6']);
});

it('what is typed goes to the column in which it was begun, though others come before it', async () => {
  const person = userEvent.setup();
  const { rerender } = render(<Scores names={['Ada']} tests={['essay', 'quiz']} />);
  await person.click(cellOf('Ada quiz'));
  await person.keyboard('7');
  rerender(<Scores names={['Ada']} tests={['essay', 'lab', 'quiz']} />);
  await person.keyboard('5{Enter}');
  expect(told()).toEqual(['Ada essay: ', 'Ada lab: ', 'Ada quiz: 75']);
  rerender(<Scores names={['Ada']} tests={['essay', 'lab']} />);
  await person.keyboard('4{Enter}');
  expect(told()).toEqual(['Ada essay: ', 'Ada lab: 4']);
});

it('a row that goes takes the other corner of the selection along, and nothing that is being typed', async () => {
  const person = userEvent.setup();
  const rowsBecome = show('Ada', 'Bo', 'Cleo');
  await person.click(cellOf('Ada'));
  await person.keyboard('{Shift>}{ArrowDown}{ArrowDown}{/Shift}8');
  rowsBecome('Bo', 'Cleo');
  await person.keyboard('1{Enter}');
  expect(told()).toEqual(['Bo: ', 'Cleo: 81']);
});
