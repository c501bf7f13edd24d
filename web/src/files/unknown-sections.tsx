import { useState } from 'react';
import type { FileImportReply } from '#contract/files';
import type { SheetSummaryReply } from '#contract/posting';
import { agreeing, counted } from '#contract/messages';
import { Choice } from '../ui/field';
import { showCount } from '../ui/format';
import { Note } from '../ui/panel';

interface UnknownSectionsProps {
  readonly file: FileImportReply;
  readonly sections: readonly SheetSummaryReply[];
  readonly onChoose: (namedSections: Readonly<Record<string, number>>) => void;
}

const shownAtFirst = 3;

/** Names in the section column that nobody knows: said once, they are known, here and in the next such file. */
export function UnknownSections({ file, sections, onChoose }: UnknownSectionsProps) {
  const [areAllShown, setAllShown] = useState(false);
  const unknown = file.plan?.unknownSections ?? [];
  if (unknown.length === 0) return null;
  const shown = areAllShown ? unknown : unknown.slice(0, shownAtFirst);
  return (
    <Note
      tone="warns"
      title={`${counted(unknown.length, 'section')} of the file ${agreeing(unknown.length, 'is')} not known`}
    >
      <ul className="max-h-[150px] overflow-y-auto">
        {shown.map(({ name, rows }) => (
          <li key={name}>
            <b className="figures">{name || 'no name at all'}</b> in {counted(rows, 'row')} is{' '}
            <Choice
              label={`Section for ${name}`}
              value=""
              onChange={({ target }) => onChoose({ ...file.namedSections, [name]: Number(target.value) })}
            >
              <option value="" disabled>
                choose a section
              </option>
              {sections.map(({ sectionId, section, teacher }) => (
                <option key={sectionId} value={sectionId}>
                  {section} · {teacher}
                </option>
              ))}
            </Choice>
          </li>
        ))}
      </ul>
      {unknown.length > shown.length && (
        <button type="button" className="font-semibold text-eucalypt underline" onClick={() => setAllShown(true)}>
          Show all {showCount(unknown.length)}
        </button>
      )}
    </Note>
  );
}
