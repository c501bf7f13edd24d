import { useState } from 'react';
import { cellFault, courseFields, courseHeadings, courseLengths, courseLevels, type CourseField } from '#core/courses';
import { cellFaultSentences } from '#contract/courses';
import { counted } from '#contract/messages';
import { HistoryButton } from '../changes/history-button';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';

interface SetValueBarProps {
  /** The one course whose history can be asked for; none where several are selected. */
  readonly history: { readonly thing: string; readonly called: string } | undefined;
  readonly count: number;
  readonly onSet: (field: CourseField, text: string) => void;
  readonly onRemove: () => void;
  readonly onCopySetUp: (() => void) | undefined;
  readonly onClear: () => void;
}

const settable = courseFields.filter((field) => field !== 'code' && field !== 'title');
const choices: Readonly<Partial<Record<CourseField, readonly string[]>>> = {
  level: courseLevels,
  length: courseLengths,
  onTranscript: ['', 'yes', 'no'],
  countsInGpa: ['', 'yes', 'no'],
};

/** Sets one value for all selected courses, as a sentence. */
export function SetValueBar({ count, onSet, onRemove, onCopySetUp, onClear, history }: SetValueBarProps) {
  const [field, setField] = useState<CourseField>('department');
  const [text, setText] = useState('');
  const fault = cellFault(field, text);
  const own = choices[field];
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-hairline bg-eucalypt-soft px-4 py-1.5">
      <b>{counted(count, 'course')} selected:</b> set
      <Choice
        label="Fact"
        value={field}
        onChange={(event) => {
          const next = event.target.value as CourseField;
          setField(next);
          setText(choices[next]?.[0] ?? '');
        }}
      >
        {settable.map((each) => (
          <option key={each} value={each}>
            {courseHeadings[each]}
          </option>
        ))}
      </Choice>
      to
      {own ? (
        <Choice label="Value" value={text} onChange={(event) => setText(event.target.value)}>
          {own.map((each) => (
            <option key={each} value={each}>
              {each || 'inherited'}
            </option>
          ))}
        </Choice>
      ) : (
        <input
          aria-label="Value"
          value={text}
          placeholder={cellFault(field, '') ? '' : 'inherited'}
          onChange={(event) => setText(event.target.value)}
          className="h-7 w-[150px] rounded border border-control bg-surface px-2"
        />
      )}
      <Button
        disabled={fault !== undefined}
        title={fault && cellFaultSentences[fault]}
        onClick={() => onSet(field, text)}
      >
        Set it
      </Button>
      <span className="ml-auto flex gap-2">
        {history && <HistoryButton thing={history.thing} called={history.called} />}
        {onCopySetUp && <Button onClick={onCopySetUp}>Copy its set-up to others</Button>}
        <Button look="danger" onClick={onRemove}>
          Delete
        </Button>
        <Button look="quiet" onClick={onClear}>
          Select none
        </Button>
      </span>
    </div>
  );
}
