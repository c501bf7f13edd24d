import { useVirtualizer } from '@tanstack/react-virtual';
import type { RegisterReply } from '#contract/attendance';
import { attendanceLetters, sitsOn } from '#core/attendance';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { showDay, showDayOfWeek } from '../ui/format';
import { EditCell } from '../ui/grid/edit-cell';
import { useCellCursor } from '../ui/grid/use-cell-cursor';
import { useRowHeight } from '../ui/own-view';
import type { useRegisterDraft } from './use-register-draft';

interface RegisterGridProps {
  readonly register: RegisterReply;
  readonly draft: ReturnType<typeof useRegisterDraft>;
  readonly isReadOnly: boolean;
}

const [nameWidth, dayWidth, missedWidth] = [230, 128, 110];
const letters = new Set(Object.values(attendanceLetters).map((letter) => letter.toLowerCase()));
const inks: Readonly<Record<string, string>> = {
  A: 'text-waratah',
  E: 'text-wattle',
  L: 'text-estuary',
  P: 'text-quiet',
};
const words: Readonly<Record<string, string>> = { A: 'absent', E: 'excused', L: 'late', P: 'present' };

/** Students × the school days of a week: a letter is a whole entry, and goes on to the next student. */
export function RegisterGrid({ register, draft, isReadOnly }: RegisterGridProps) {
  const { students, days, today } = register;
  const canTake = (row: number, column: number) =>
    !isReadOnly && days[column]!.day <= today && sitsOn(students[row]!, days[column]!.day);
  const faultAt = (row: number, column: number) =>
    draft.faults.some(
      ({ enrollmentId, day }) => enrollmentId === students[row]!.enrollmentId && day === days[column]!.day,
    );
  const rowHeight = useRowHeight();
  const cells = useCellCursor({
    rows: students.length,
    keyAt: (row) => students[row]?.enrollmentId,
    columns: days.length,
    columnKeyAt: (column) => days[column]?.day,
    isReadOnly,
    textAt: (row, column) => draft.textAt(students[row]!, days[column]!.day),
    onEdit: draft.edit,
    onReach: (row) => virtual.scrollToIndex(row),
    isBeginning: (key) => letters.has(key.toLowerCase()),
    isWhole: (key) => letters.has(key.toLowerCase()),
    isLocked: (row, column) => !canTake(row, column),
    isPassed: (row) => students[row]!.withdrawnOn !== null && students[row]!.withdrawnOn < days[0]!.day,
  });
  const virtual = useVirtualizer({
    count: students.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight + 1,
    overscan: 8,
  });
  const width = nameWidth + days.length * dayWidth + missedWidth;
  const head = 'flex shrink-0 items-center px-2 font-semibold';
  return (
    <div
      {...cells.grid}
      aria-label="Attendance"
      aria-colcount={days.length + 2}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
    >
      <div
        role="row"
        aria-rowindex={1}
        style={{ minWidth: width }}
        className="sticky top-0 z-10 flex h-[76px] border-b border-hairline bg-surface text-quiet"
      >
        <div
          role="columnheader"
          aria-colindex={1}
          style={{ width: nameWidth }}
          className={`${head} sticky left-0 z-20 items-end bg-surface pb-1.5`}
        >
          Student
        </div>
        {days.map(({ day, taken }, column) => (
          <div
            key={day}
            role="columnheader"
            aria-colindex={column + 2}
            style={{ width: dayWidth }}
            className={`${head} flex-col justify-center gap-0.5 ${draft.drafts[day] ? 'shadow-[inset_0_-3px_0_var(--wattle-fill)]' : ''}`}
          >
            <span className={`text-ink ${day === today ? 'underline decoration-2 underline-offset-4' : ''}`}>
              {showDayOfWeek(day)}
            </span>
            <DayState register={register} draft={draft} day={day} takenBy={taken?.by ?? null} isReadOnly={isReadOnly} />
          </div>
        ))}
        <div
          role="columnheader"
          aria-colindex={days.length + 2}
          style={{ width: missedWidth }}
          className={`${head} items-end justify-end pb-1.5`}
        >
          Missed
        </div>
      </div>
      <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: width }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const student = students[index]!;
          const cursor = cells.inRow(index);
          return (
            <div
              key={student.enrollmentId}
              role="row"
              aria-rowindex={index + 2}
              data-index={index}
              ref={virtual.measureElement}
              style={{ transform: `translateY(${start}px)` }}
              className={`absolute inset-x-0 flex min-h-(--row) border-b border-hairline bg-surface ${student.withdrawnOn ? 'text-quiet' : ''}`}
            >
              <div
                role="rowheader"
                aria-colindex={1}
                title={student.student}
                style={{ width: nameWidth }}
                className="sticky left-0 z-[1] flex shrink-0 items-center bg-inherit px-2.5"
              >
                <span className="truncate font-semibold">{student.student}</span>
                {student.withdrawnOn && (
                  <span className="ml-1 text-[12px]">withdrawn {showDay(student.withdrawnOn)}</span>
                )}
              </div>
              {days.map(({ day }, column) => {
                const text = draft.textAt(student, day);
                const isFault = faultAt(index, column);
                return (
                  <EditCell
                    key={day}
                    row={index}
                    column={column}
                    ariaColumn={column + 2}
                    cursor={cursor}
                    actions={cells.actions}
                    label={`${student.student}, ${showDay(day)}`}
                    isLocked={!canTake(index, column)}
                    maxLength={12}
                    fault={isFault ? 'P for present, A for absent, E for excused or L for late' : undefined}
                    title={isFault ? 'P for present, A for absent, E for excused or L for late' : words[text]}
                    style={{ width: dayWidth }}
                    look={`justify-center ${isFault ? 'bg-waratah-soft text-waratah' : ''} ${canTake(index, column) ? '' : 'bg-raised'}`}
                  >
                    <span className={`figures ${text === 'P' ? '' : 'font-bold'} ${isFault ? '' : (inks[text] ?? '')}`}>
                      {text}
                    </span>
                  </EditCell>
                );
              })}
              <div
                role="gridcell"
                aria-colindex={days.length + 2}
                style={{ width: missedWidth }}
                className="figures flex shrink-0 items-center justify-end px-2 text-quiet"
              >
                {student.missed} of {student.of}
              </div>
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface DayStateProps extends RegisterGridProps {
  readonly day: RegisterReply['days'][number]['day'];
  readonly takenBy: string | null;
}

/** What is so of a day, and how to take it with one press. */
function DayState({ register, draft, day, takenBy, isReadOnly }: DayStateProps) {
  if (day > register.today) return <span className="text-[12px] font-normal">to come</span>;
  if (!draft.isTaken(day))
    return isReadOnly ? (
      <span className="text-[12px] font-normal">not taken</span>
    ) : (
      <Button look="quiet" className="h-7 px-2 text-[12px]" onClick={() => draft.allPresent(day)}>
        All present
      </Button>
    );
  const absences = Object.values(draft.absencesOf(day)).filter((kind) => kind !== 'late').length;
  const says = absences === 0 ? 'all present' : counted(absences, 'absence');
  return (
    <span className="text-[12px] font-normal" title={takenBy ? `taken by ${takenBy}` : undefined}>
      {says}
      {draft.drafts[day] && <span className="sr-only">, not saved</span>}
    </span>
  );
}
