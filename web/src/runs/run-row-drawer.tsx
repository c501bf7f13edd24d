import { Link } from 'react-router';
import { canCarryOut, isWriting } from '#core/runs';
import type { PickRequest, RunReply, RunRowReply } from '#contract/runs';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Drawer } from '../ui/drawer';
import { RemarkLines } from '../ui/remarks';
import { useRunActions } from './run-queries';
import { kindNames, mends, outcomeNames, resultNames, sayReason, showFacts } from './run-words';

interface RunRowDrawerProps {
  readonly run: RunReply;
  readonly row: RunRowReply;
  readonly path: (place: string) => string;
  readonly onClose: () => void;
}

/** One line in full: what stands here, what comes, every reason in a sentence with where it is mended. */
export function RunRowDrawer({ run, row, path, onClose }: RunRowDrawerProps) {
  const { pick } = useRunActions(run.id);
  const own = run.classes.find(({ classId }) => classId === row.classId);
  const categories = new Map(run.categories.map(({ id, name }) => [id, name]));
  const leaveOut = (kind: PickRequest['kind'], key: string) =>
    pick.mutate({ kind, keys: [key], isPicked: false }, { onSuccess: onClose });
  return (
    <Drawer title={`${outcomeNames[row.outcome]} ${kindNames[row.kind]}`} onClose={onClose}>
      <div className="space-y-4">
        <div>
          <h3 className="text-[16px] font-bold">{row.name}</h3>
          <p className="text-[13px] text-quiet">
            {row.column && <>{row.column}, </>}
            {own?.section ?? own?.title}
            {own?.section && own.title !== own.section && (
              <>
                {' '}
                ({own.title} on {run.platform})
              </>
            )}
          </p>
        </div>
        {row.after && (
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-[13px]">
            <dt className="text-quiet">Here</dt>
            <dd className="figures">{showFacts(row.before, categories)}</dd>
            <dt className="text-quiet">{run.platform}</dt>
            <dd className="figures font-bold">{showFacts(row.after, categories)}</dd>
          </dl>
        )}
        <RemarkLines remarks={row.remarks} />
        {row.result && <p className="text-[13px]">This row was {resultNames[row.result]}.</p>}
        <ul className="space-y-2 text-[13px]">
          {row.reasons.map((reason) => {
            const mend = mends[reason.code];
            return (
              <li key={reason.code} className="border-l-[3px] border-hairline pl-3">
                {sayReason(reason)}{' '}
                {mend && (
                  <Link className="font-semibold text-estuary underline" to={path(mend.place)}>
                    {mend.says}
                  </Link>
                )}
              </li>
            );
          })}
        </ul>
        {row.kind === 'assignment' && (
          <p className="text-[13px] text-quiet">
            {counted(row.same, 'score')} the same, {row.blank} not scored there, {row.heldBack} skipped.
          </p>
        )}
        {own?.sectionId && (
          <p className="text-[13px]">
            <Link className="font-semibold text-estuary underline" to={path(`grade-books/${own.sectionId}`)}>
              Open the grade book of {own.section}
            </Link>
          </p>
        )}
        {isWriting(row.outcome) && canCarryOut(run) && (
          <div className="flex flex-col items-start gap-2">
            {row.kind !== 'assignment' && (
              <Button writes onClick={() => leaveOut('row', String(row.id))}>
                Skip this row
              </Button>
            )}
            <Button writes onClick={() => leaveOut('column', row.columnKey)}>
              Skip {row.kind === 'assignment' ? row.name : (row.column ?? 'the column')} with its scores
            </Button>
            {row.personKey !== '' && (
              <Button writes onClick={() => leaveOut('person', row.personKey)}>
                Skip {row.name} everywhere
              </Button>
            )}
            <Button writes onClick={() => leaveOut('class', String(row.classId))}>
              Skip the whole class
            </Button>
          </div>
        )}
      </div>
    </Drawer>
  );
}
