import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { EditCell } from './edit-cell';
import { useCellCursor } from './use-cell-cursor';

/** People with one cell each; what is typed into it is kept by name. */
function People({ names }: { names: readonly string[] }) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const cells = useCellCursor({
    rows: names.length,
    keyAt: (row) => names[row],
    columns: 1,
    textAt: (row) => texts[names[row]!] ?? '',
    onEdit: (edits) =>
      setTexts((before) => ({ ...before, ...Object.fromEntries(edits.map(([row, , text]) => [names[row]!, text])) })),
    onReach: () => undefined,
  });
  return (
    <div {...cells.grid} aria-label="people">
      {names.map((name, row) => (
        <div key={name} role="row">
          <EditCell
            row={row}
            column={0}
            ariaColumn={1}
            cursor={cells.inRow(row)}
            actions={cells.actions}
            label={name}
            look=""
          >
            {name}: {texts[name] ?? ''}
          </EditCell>
        </div>
      ))}
    </div>
  );
}

const told = () => screen.getAllByRole('gridcell').map(({ textContent }) => textContent);
const cellOf = (name: string) => screen.getByText((text) => text.startsWith(`${name}:`));

/** Shows people; answers with what shows others in their place. */
function show(...names: readonly string[]) {
  const { rerender } = render(<People names={names} />);
  return (...next: readonly string[]) => rerender(<People names={next} />);
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
