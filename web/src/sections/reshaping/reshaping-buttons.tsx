import { useNavigate } from 'react-router';
import type { EnrollmentField, SectionField } from '#core/sections';
import { mostMoved, type EnrollmentRowReply, type SectionRowReply } from '#contract/sections';
import type { TableRow } from '../../cell-tables/table-look';
import { useScope } from '../../shell/scope';
import { Button } from '../../ui/button';

interface MergeButtonProps {
  readonly selected: readonly TableRow<SectionField, SectionRowReply>[];
  readonly onMerge: (sections: readonly SectionRowReply[]) => void;
}

/** Makes one section of those that are selected, where they are of one course and one period. */
export function MergeButton({ selected, onMerge }: MergeButtonProps) {
  const why = whyNotMerged(selected);
  return (
    <Button
      writes
      disabled={why !== undefined}
      title={why}
      onClick={() => onMerge(selected.map(({ reply }) => reply!))}
    >
      Merge…
    </Button>
  );
}

/** Leads to the students of the section that is selected, of whom some get a section of their own. */
export function SplitButton({ selected }: Pick<MergeButtonProps, 'selected'>) {
  const navigate = useNavigate();
  const { path } = useScope();
  const one = selected.length === 1 ? selected[0]!.reply : undefined;
  return (
    <Button
      writes
      disabled={one === undefined}
      title={one === undefined ? 'Select one section that is saved.' : undefined}
      onClick={() => void navigate(path(`enrollments?section=${one!.id}&split=yes`))}
    >
      Split…
    </Button>
  );
}

interface SplitOffButtonProps {
  readonly rows: readonly TableRow<EnrollmentField, EnrollmentRowReply>[];
  readonly onSplit: (enrollments: readonly EnrollmentRowReply[]) => void;
}

/** Gives the students who are selected a section of their own, where all sit in one. */
export function SplitOffButton({ rows, onSplit }: SplitOffButtonProps) {
  const why = whyNotSplit(rows);
  return (
    <Button writes disabled={why !== undefined} title={why} onClick={() => onSplit(rows.map(({ reply }) => reply!))}>
      Split…
    </Button>
  );
}

const saveFirst = 'Save what you changed in these rows first.';

function whyNotMerged(rows: MergeButtonProps['selected']): string | undefined {
  if (rows.some(({ reply, changed }) => !reply || changed.size > 0)) return saveFirst;
  if (rows.length < 2) return 'Select two or more sections of one course.';
  const [first, ...others] = rows.map(({ cells }) => cells);
  return others.some(({ course, period }) => course !== first!.course || period !== first!.period)
    ? 'Sections that become one are of one course, and run in the same period.'
    : undefined;
}

function whyNotSplit(rows: SplitOffButtonProps['rows']): string | undefined {
  if (rows.some(({ reply, changed }) => !reply || changed.size > 0)) return saveFirst;
  if (rows.length === 0 || rows.length > mostMoved) return `Select from 1 to ${mostMoved} students.`;
  return new Set(rows.map(({ reply }) => reply!.sectionId)).size > 1 ? 'Select students of one section.' : undefined;
}
