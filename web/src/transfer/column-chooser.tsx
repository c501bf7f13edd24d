import type { ChooseColumnsRequest, FileImportReply } from '#contract/transfer';
import type { SheetSummaryReply } from '#contract/posting';
import { Choice } from '../ui/field';
import { Panel } from '../ui/panel';
import { proposalWords } from './words';

interface ColumnChooserProps {
  readonly file: FileImportReply;
  readonly sections: readonly SheetSummaryReply[];
  readonly onChoose: (change: Partial<ChooseColumnsRequest>) => void;
}

const none = '';

/** What the file's columns mean, as a sentence, over its first rows. */
export function ColumnChooser({ file, sections, onChoose }: ColumnChooserProps) {
  const number = (text: string) => (text === none ? null : Number(text));
  const columns = file.header.map((name, column) => (
    <option key={column} value={column}>
      {name || `column ${column + 1}`}
    </option>
  ));
  const { id, grade, section } = file.proposals;
  return (
    <Panel label="Columns" className="shrink-0">
      <div className="px-4 pt-2.5 pb-2">
        <p className="text-[15px] leading-[1.9]">
          Students are named by{' '}
          <Choice
            label="Id column"
            value={file.idColumn ?? none}
            onChange={(event) => onChoose({ idColumn: number(event.target.value) })}
          >
            <option value={none}>choose a column</option>
            {columns}
          </Choice>
          , their total stands in{' '}
          <Choice
            label="Grade column"
            value={file.gradeColumn ?? none}
            onChange={(event) => onChoose({ gradeColumn: number(event.target.value) })}
          >
            <option value={none}>choose a column</option>
            {columns}
          </Choice>
          , and they are in{' '}
          <Choice
            label="Section"
            value={file.sectionId ?? none}
            onChange={(event) => onChoose({ sectionId: number(event.target.value) })}
          >
            <option value={none}>choose a section</option>
            {sections.map(({ sectionId, section: name, teacher }) => (
              <option key={sectionId} value={sectionId}>
                {name} · {teacher}
              </option>
            ))}
          </Choice>
          .
        </p>
        <p className="text-[12px] text-quiet">
          {id
            ? `Proposed id column: ${proposalWords(id)} (${id.confidence} %). `
            : 'No column holds ids that we know. '}
          {grade ? `Grade column: ${proposalWords(grade)} (${grade.confidence} %). ` : 'No column holds percents. '}
          {section ? `Section: ${section.known} of the students are in it (${section.confidence} %).` : ''}
        </p>
      </div>
      <div className="overflow-x-auto border-t border-hairline">
        <table className="w-full text-[12px]">
          <thead>
            <tr>
              {file.header.map((name, column) => (
                <th
                  key={column}
                  className={`px-3 py-1 text-left font-semibold whitespace-nowrap ${lookOf(file, column)}`}
                >
                  {name}
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
                    className={`max-w-[220px] truncate px-3 py-0.5 ${column === file.idColumn || column === file.gradeColumn ? 'figures bg-eucalypt-soft' : 'text-quiet'}`}
                  >
                    {row[column] ?? ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Panel>
  );
}

function lookOf({ idColumn, gradeColumn }: FileImportReply, column: number): string {
  return column === idColumn || column === gradeColumn ? 'bg-eucalypt-soft text-eucalypt' : 'text-quiet';
}
