import type { ChooseColumnsRequest, FileImportReply, ReadAgainRequest } from '#contract/files';
import type { SheetSummaryReply } from '#contract/posting';
import { Choice } from '../ui/field';
import { Panel } from '../ui/panel';
import { ProposalReasons } from './proposal-reasons';
import { WhereTableIs } from './where-table-is';

interface ChoiceProps {
  readonly file: FileImportReply;
  readonly sections: readonly SheetSummaryReply[];
  readonly onChoose: (change: Partial<ChooseColumnsRequest>) => void;
}

interface ColumnChooserProps extends ChoiceProps {
  readonly onReadAgain: (request: ReadAgainRequest) => void;
}

const none = '';

/** What the file's columns mean, as a sentence, over its first rows. */
export function ColumnChooser({ file, sections, onChoose, onReadAgain }: ColumnChooserProps) {
  return (
    <Panel label="Columns" className="shrink-0">
      <div className="px-4 pt-2.5 pb-2">
        <WhereTableIs file={file} onReadAgain={onReadAgain} />
        {!file.asksSheet && <WhatColumnsMean file={file} sections={sections} onChoose={onChoose} />}
      </div>
      <Sample file={file} />
    </Panel>
  );
}

/** Which column is what, as a sentence, and why. */
function WhatColumnsMean({ file, sections, onChoose }: ChoiceProps) {
  return (
    <>
      <p className="text-[15px] leading-[1.9]">
        Students are named by{' '}
        <ColumnChoice
          label="Id column"
          file={file}
          column={file.idColumn}
          onChange={(idColumn) => onChoose({ idColumn })}
        />{' '}
        and are in <SectionChoice file={file} sections={sections} onChoose={onChoose} />;{' '}
        {file.items.map(({ id, name }, at) => (
          <span key={id}>
            {at === 0 ? 'their ' : at === file.items.length - 1 ? ' and ' : ', '}
            {name} is in{' '}
            <ColumnChoice
              label={`Column of ${name}`}
              noneWords={file.items.length > 1 ? 'no column' : 'choose a column'}
              file={file}
              column={file.grades.find(({ itemId }) => itemId === id)?.column ?? null}
              onChange={(column) =>
                onChoose({
                  grades: [
                    ...file.grades.filter(({ itemId }) => itemId !== id),
                    ...(column === null ? [] : [{ column, itemId: id }]),
                  ],
                })
              }
            />
          </span>
        ))}
        .
      </p>
      <ProposalReasons file={file} />
    </>
  );
}

interface ColumnChoiceProps {
  readonly label: string;
  readonly noneWords?: string;
  readonly file: FileImportReply;
  readonly column: number | null;
  readonly onChange: (column: number | null) => void;
}

function ColumnChoice({ label, noneWords = 'choose a column', file, column, onChange }: ColumnChoiceProps) {
  return (
    <Choice
      label={label}
      value={column ?? none}
      onChange={({ target }) => onChange(target.value === none ? null : Number(target.value))}
    >
      <option value={none}>{noneWords}</option>
      {columnOptions(file, '')}
    </Choice>
  );
}

/** One section for all rows, or the column that names the section of each. */
function SectionChoice({ file, sections, onChoose }: ChoiceProps) {
  const { sectionId, sectionColumn } = file;
  return (
    <Choice
      label="Section"
      value={sectionColumn !== null ? `column ${sectionColumn}` : sectionId !== null ? `section ${sectionId}` : none}
      onChange={({ target }) => {
        const [kind, id] = target.value.split(' ');
        onChoose({
          sectionColumn: kind === 'column' ? Number(id) : null,
          sectionId: kind === 'section' ? Number(id) : null,
        });
      }}
    >
      <option value={none}>choose a section</option>
      <optgroup label="The section that a column names">{columnOptions(file, 'column ')}</optgroup>
      <optgroup label="One section">
        {sections.map(({ sectionId: id, section, teacher }) => (
          <option key={id} value={`section ${id}`}>
            {section} · {teacher}
          </option>
        ))}
      </optgroup>
    </Choice>
  );
}

function columnOptions({ header }: FileImportReply, prefix: string) {
  return header.map((name, column) => (
    <option key={column} value={`${prefix}${column}`}>
      {prefix === '' ? '' : 'the section in '}
      {name || `column ${column + 1}`}
    </option>
  ));
}

function Sample({ file }: { file: FileImportReply }) {
  const used = new Set([file.idColumn, file.sectionColumn, ...file.grades.map(({ column }) => column)]);
  return (
    <div className="overflow-x-auto border-t border-hairline">
      <table className="w-full text-[12px]">
        <thead>
          <tr>
            {file.header.map((name, column) => (
              <th
                key={column}
                className={`px-3 py-1 text-left font-semibold whitespace-nowrap ${used.has(column) ? 'bg-eucalypt-soft text-eucalypt' : 'text-quiet'}`}
              >
                {name || `column ${column + 1}`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {file.sampleRows.slice(0, 3).map((row, index) => (
            <tr key={index}>
              {file.header.map((_name, column) => (
                <td
                  key={column}
                  className={`max-w-[220px] truncate px-3 py-0.5 ${used.has(column) ? 'figures bg-eucalypt-soft' : 'text-quiet'}`}
                >
                  {row[column] ?? ''}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
