import type { FileImportReply, ReadAgainRequest } from '#contract/files';
import { counted } from '#contract/messages';
import { Choice } from '../ui/field';

interface WhereTableIsProps {
  readonly file: FileImportReply;
  readonly onReadAgain: (request: ReadAgainRequest) => void;
}

/** In which row the columns are named, and in which sheet: found, or chosen by hand. */
export function WhereTableIs({ file, onReadAgain }: WhereTableIsProps) {
  const { headerRow, leadingRows, sheets, sheet, asksSheet } = file;
  const hidden = sheets.filter(({ isHidden }) => isHidden).length;
  return (
    <p className="text-[15px] leading-[1.9]">
      {sheets.length > 1 && (
        <>
          The table is in{' '}
          <Choice
            label="Sheet"
            value={asksSheet ? '' : (sheet ?? '')}
            onChange={({ target }) => target.value !== '' && onReadAgain({ sheet: target.value, headerRow: null })}
          >
            {asksSheet && <option value="">choose a sheet</option>}
            {sheets.map(({ name, isHidden }) => (
              <option key={name} value={name}>
                {name} {isHidden && '(hidden)'}
              </option>
            ))}
          </Choice>{' '}
          {hidden > 0 && <span className="text-[12px] text-quiet">({counted(hidden, 'sheet')} hidden)</span>}{' '}
        </>
      )}
      Column names are in{' '}
      <Choice
        label="Row with the column names"
        value={headerRow}
        onChange={({ target }) => onReadAgain({ sheet: null, headerRow: Number(target.value) })}
      >
        <option value={0}>no row</option>
        {leadingRows.map((row, at) => (
          <option key={at} value={at + 1}>
            row {at + 1}: {briefly(row)}
          </option>
        ))}
      </Choice>
      .
    </p>
  );
}

const mostSigns = 60;

/** The filled cells of a row, as many as there is room for. */
function briefly(row: readonly string[]): string {
  const text = row.filter((cell) => cell.trim() !== '').join(', ');
  return text.length > mostSigns ? `${text.slice(0, mostSigns)}…` : text || 'blank';
}
