import type { PolicyBody, PolicyEffectReply } from '#contract/calculation';
import type { PolicyPlace } from '#core/calculation';
import { EffectChart } from '../scales/effect-chart';
import { EffectMatrix } from '../scales/effect-matrix';
import { ProblemError } from '../shell/api';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/data-grid';
import { Dialog } from '../ui/dialog';
import { plural, showCount, showLabel, showPercent } from '../ui/format';
import { Strong } from '../ui/page';
import { usePolicyEffect } from './queries';

interface PolicyEffectDialogProps {
  readonly name: string;
  readonly place: PolicyPlace;
  /** Null: the place would inherit again. */
  readonly body: PolicyBody | null;
  readonly periodName: string;
  readonly canSave: boolean;
  readonly saveWords: string;
  readonly onSave: () => void;
  readonly onClose: () => void;
}

type StudentEffect = PolicyEffectReply['students'][number];

const shown = (percent: string | null, label: string | null) =>
  percent === null ? '–' : `${showPercent(percent)} ${label ? showLabel(label) : 'no label'}`;

const columns: readonly GridColumn<StudentEffect>[] = [
  {
    id: 'student',
    header: 'Student',
    width: '210px',
    sortBy: ({ student }) => student,
    cell: ({ student }) => <b className="font-semibold">{student}</b>,
  },
  { id: 'section', header: 'Section', sortBy: ({ section }) => section, cell: ({ section }) => section },
  {
    id: 'before',
    header: 'now',
    width: '120px',
    align: 'right',
    sortBy: ({ before }) => Number(before ?? -1),
    cell: ({ before, from }) => <span className="figures">{shown(before, from)}</span>,
  },
  {
    id: 'after',
    header: 'would be',
    width: '120px',
    align: 'right',
    sortBy: ({ after }) => Number(after ?? -1),
    cell: ({ after, to }) => <span className="figures font-bold">{shown(after, to)}</span>,
  },
  {
    id: 'label',
    header: 'Label',
    width: '96px',
    sortBy: ({ from, to }) => (from === to ? 1 : 0),
    cell: ({ from, to }) => (from === to ? <span className="text-quiet">stays</span> : <b>changes</b>),
  },
];

/** What a policy would do to all the grade books it would hold for, before it is saved. */
export function PolicyEffectDialog(props: PolicyEffectDialogProps) {
  const { name, place, body, periodName, canSave, saveWords, onSave, onClose } = props;
  const { schoolId, periodId } = useScope();
  const effect = usePolicyEffect(schoolId, { ...place, policy: body, inPeriodId: periodId });
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={body ? `What the draft for ${name} would do` : `What would follow if ${name} inherits again`}
      description={effect.data && <EffectSentence effect={effect.data} periodName={periodName} />}
      footer={
        <>
          <Button look="main" disabled={!canSave} onClick={onSave}>
            {saveWords}
          </Button>
          <Button onClick={onClose}>Back</Button>
          {effect.data && (
            <span className="ml-auto text-[12px] text-quiet">
              {plural(effect.data.grades, 'grade')} calculated twice in {showCount(effect.data.milliseconds)} ms
            </span>
          )}
        </>
      }
    >
      {effect.isPending && (
        <p className="py-10 text-center text-quiet">Calculating the grade books of {periodName} …</p>
      )}
      {effect.error instanceof ProblemError && <p className="text-waratah">{effect.error.problem.detail}</p>}
      {effect.data && effect.data.changed > 0 && (
        <div className="space-y-5">
          <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6">
            <EffectMatrix effect={effect.data} bands={effect.data.bands} />
            <EffectChart effect={effect.data} bands={effect.data.bands} />
          </div>
          <div className="flex h-[230px] flex-col rounded-md border border-hairline">
            <DataGrid
              label="Students whose percents would change"
              columns={columns}
              rows={effect.data.students}
              rowKey={({ studentId, section }) => `${studentId} ${section}`}
              empty={null}
            />
          </div>
        </div>
      )}
    </Dialog>
  );
}

function EffectSentence({ effect, periodName }: { effect: PolicyEffectReply; periodName: string }) {
  const { sections, grades, changed, moved, rise, fall, passAnew, failAnew } = effect;
  if (sections === 0) return <>No grade book of {periodName} with scores would be calculated by it.</>;
  const where = `${plural(grades, 'grade')} of ${periodName} in ${plural(sections, 'section')}`;
  if (changed === 0) return <>It would change none of {where}.</>;
  return (
    <>
      It would change <Strong tone="warns">{showCount(changed)}</Strong> of {where}: {showCount(rise)} up,{' '}
      {showCount(fall)} down, and <Strong tone="warns">{plural(moved, 'label')}</Strong>
      {passAnew > 0 && (
        <>
          ; <Strong>{showCount(passAnew)}</Strong> would pass anew
        </>
      )}
      {failAnew > 0 && (
        <>
          {passAnew > 0 ? ' and ' : '; '}
          <Strong tone="blocks">{showCount(failAnew)}</Strong> would fail anew
        </>
      )}
      . Posted grades stay as they are.
    </>
  );
}
