import { useState } from 'react';
import type { CourseDefaultsBody, CoursesReply } from '#contract/courses';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Select } from '../ui/choice/select';
import { useSaveCourseDefaults } from './queries';

interface DefaultsDialogProps {
  readonly schoolId: number;
  readonly reply: CoursesReply;
  readonly onClose: () => void;
}

const nothing = { credits: null, mostCredits: null, onTranscript: null, countsInGpa: null, allowsExempt: null };
const inputLook =
  'figures h-[28px] w-full rounded-[3px] border border-hairline bg-surface px-1.5 text-right placeholder:font-sans placeholder:text-quiet';

/** What holds where courses say nothing: for the school, and for departments that differ. */
export function DefaultsDialog({ schoolId, reply, onClose }: DefaultsDialogProps) {
  const departments = [...new Set(reply.courses.map(({ cells }) => cells.department))].toSorted();
  const [rows, setRows] = useState<readonly CourseDefaultsBody[]>(() =>
    [null, ...departments].map(
      (department) => reply.defaults.find((each) => each.department === department) ?? { ...nothing, department },
    ),
  );
  const save = useSaveCourseDefaults(schoolId);
  const tellOfChange = useTellOfChange();
  const change = (index: number, changed: Partial<CourseDefaultsBody>) =>
    setRows(rows.with(index, { ...rows[index]!, ...changed }));
  const store = () => {
    const said = rows.filter(({ department: _department, ...facts }) =>
      Object.values(facts).some((fact) => fact !== null),
    );
    save.mutate(
      { revision: reply.defaultsRevision, defaults: [...said] },
      {
        onSuccess: (after) => {
          onClose();
          tellOfChange('The course defaults are saved.', after);
        },
        onError: showProblem,
      },
    );
  };
  const number = (index: number, key: 'credits' | 'mostCredits', label: string) => (
    <input
      aria-label={`${label} of ${rows[index]!.department ?? 'the school'}`}
      value={rows[index]![key] ?? ''}
      placeholder={index === 0 ? 'none' : 'the school’s'}
      onChange={(event) => change(index, { [key]: event.target.value.trim().replace(',', '.') || null })}
      className={inputLook}
    />
  );
  const choice = (index: number, key: 'onTranscript' | 'countsInGpa' | 'allowsExempt', label: string) => (
    <Select
      aria-label={`${label} of ${rows[index]!.department ?? 'the school'}`}
      value={rows[index]![key] === null ? '' : rows[index]![key] ? 'yes' : 'no'}
      onChange={(event) => change(index, { [key]: event.target.value === '' ? null : event.target.value === 'yes' })}
      className="h-[28px] w-full rounded-[3px] border border-hairline bg-surface px-1"
    >
      <option value="">{index === 0 ? 'yes, the usual' : 'as the school'}</option>
      <option value="yes">yes</option>
      <option value="no">no</option>
    </Select>
  );
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Course defaults"
      description="A course that leaves a field empty uses its department’s value, otherwise the school’s."
      footer={
        <>
          <Button look="main" disabled={save.isPending} onClick={store}>
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <HistoryButton thing={`course-defaults ${schoolId}`} called="the course defaults" onOpen={onClose} />
        </>
      }
    >
      <table className="w-full table-fixed text-[13px]">
        <thead>
          <tr className="text-left text-quiet [&_th]:h-8 [&_th]:px-1 [&_th]:font-semibold">
            <th>For</th>
            <th className="w-[110px]">Credits</th>
            <th className="w-[110px]">Maximum credits</th>
            <th className="w-[130px]">On transcript</th>
            <th className="w-[130px]">In GPA</th>
            <th className="w-[130px]">Exempt allowed</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ department }, index) => (
            <tr key={department ?? ''} className="border-t border-hairline [&_td]:px-1 [&_td]:py-1">
              <td className={department === null ? 'font-bold' : ''}>{department ?? 'The whole school'}</td>
              <td>{number(index, 'credits', 'Credits')}</td>
              <td>{number(index, 'mostCredits', 'Maximum credits')}</td>
              <td>{choice(index, 'onTranscript', 'On transcript')}</td>
              <td>{choice(index, 'countsInGpa', 'In GPA')}</td>
              <td>{choice(index, 'allowsExempt', 'Exempt allowed')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
