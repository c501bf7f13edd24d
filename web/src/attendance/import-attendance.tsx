import { useMemo, useState } from 'react';
import { attendanceHeadings, type AttendanceField } from '#core/attendance';
import { nameBook } from '#core/sections';
import type { AttendanceImportReply } from '#contract/attendance';
import { agreeing, counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ImportRowsDialog, type ImportLook } from '../cell-tables/import-rows-dialog';
import { ImportButton } from '../cell-tables/table-files';
import { showProblem } from '../shell/show-problem';
import { showName } from '../ui/format';
import { useImportAttendance, usePlanAttendance } from './queries';

/** Brings attendance from a file: looked at first, then imported as one change. */
export function ImportAttendance() {
  const plan = usePlanAttendance();
  const save = useImportAttendance();
  const tellOfChange = useTellOfChange();
  const [shown, setShown] = useState<AttendanceImportReply | null>(null);
  const take = ({ rows, revision }: AttendanceImportReply) => {
    const useful = rows.filter(({ outcome }) => outcome === 'new' || outcome === 'changed');
    save.mutate(
      { revision, rows: useful.map(({ cells }) => cells) },
      {
        onSuccess: (reply) => {
          setShown(null);
          tellOfChange(`${counted(reply.rows, 'row')} imported into ${counted(reply.registers, 'register')}.`, reply);
        },
        onError: showProblem,
      },
    );
  };
  return (
    <>
      <ImportButton
        label="File of attendance"
        isReading={plan.isPending}
        onFile={(file) => plan.mutate(file, { onSuccess: setShown, onError: showProblem })}
      />
      {shown && (
        <ImportDialog
          plan={shown}
          isSaving={save.isPending}
          onTake={() => take(shown)}
          onClose={() => setShown(null)}
        />
      )}
    </>
  );
}

interface ImportDialogProps {
  readonly plan: AttendanceImportReply;
  readonly isSaving: boolean;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

function ImportDialog({ plan, isSaving, onTake, onClose }: ImportDialogProps) {
  const look = useMemo(() => lookOf(plan), [plan]);
  const useful = plan.rows.filter(({ outcome }) => outcome === 'new' || outcome === 'changed').length;
  return (
    <ImportRowsDialog
      look={look}
      plan={plan}
      takes={`Import ${counted(useful, 'row')}`}
      isTaking={isSaving}
      note={
        plan.registers > 0
          ? `${counted(plan.registers, 'register')} ${agreeing(plan.registers, 'is')} not taken yet: whoever the file does not name there was present.`
          : undefined
      }
      onTake={onTake}
      onClose={onClose}
    />
  );
}

/** How rows of attendance show. */
function lookOf({ students }: AttendanceImportReply): ImportLook<AttendanceField> {
  const book = nameBook(students);
  return {
    table: { headings: attendanceHeadings, unique: { field: 'day' } },
    widths: { section: 150, student: 160, day: 96, status: 64 },
    staying: ['section', 'student'],
    main: 'status',
    inFigures: new Set<AttendanceField>(['day', 'status']),
    shown: (field, text) => (field === 'student' ? book.shown(text, showName) : text),
  };
}
