import { Undo2 } from 'lucide-react';
import type { ChangedThingReply, ChangeReply } from '#contract/changes';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { showInstant } from '../ui/format';
import { useUndo } from './use-tell-of-change';

/** As many facts as are told of a thing at once. */
const mostFields = 6;

/** Changes with what each changed, the newest first; those that can be undone say so. */
export function ChangeList({ changes, showsWho }: { changes: readonly ChangeReply[]; showsWho: boolean }) {
  const undo = useUndo();
  return (
    <ul>
      {changes.map(({ id, at, actor, action, undoes, isUndone, canUndo, things, moreThings }) => (
        <li key={id} className="border-t border-hairline px-4 py-2.5 first:border-t-0">
          <div className="flex items-start gap-2">
            <div className="min-w-0 flex-1">
              <p className={`font-semibold first-letter:uppercase ${isUndone ? 'text-quiet line-through' : ''}`}>
                {action}
              </p>
              <p className="text-[12px] text-quiet">
                {showInstant(at)}
                {showsWho && `, ${actor}`}
                {isUndone && ', undone'}
                {undoes !== null && ', an undo'}
              </p>
            </div>
            {canUndo && (
              <Button aria-label={`Undo: ${action}, ${showInstant(at)}`} onClick={() => void undo(id)}>
                <Undo2 size={14} aria-hidden /> Undo
              </Button>
            )}
          </div>
          {things.map((each) => (
            <ChangedFields key={each.thing} changed={each} isAlone={things.length + moreThings === 1} />
          ))}
          {moreThings > 0 && <p className="mt-1 text-[13px] text-quiet">and {counted(moreThings, 'more thing')}</p>}
        </li>
      ))}
    </ul>
  );
}

function ChangedFields({ changed: { called, fields }, isAlone }: { changed: ChangedThingReply; isAlone: boolean }) {
  return (
    <div className="mt-1 text-[13px]">
      {!isAlone && <p className="text-quiet first-letter:uppercase">{called}</p>}
      <dl>
        {fields.slice(0, mostFields).map(({ field, before, after }) => (
          <div key={field} className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-2">
            <dt className="text-quiet first-letter:uppercase">{field}</dt>
            <dd className="break-words">
              {before === '' ? <span className="sr-only">nothing</span> : <del className="text-quiet">{before}</del>}{' '}
              <b className="font-semibold">{after === '' ? 'removed' : after}</b>
            </dd>
          </div>
        ))}
      </dl>
      {fields.length > mostFields && (
        <p className="text-quiet">and {counted(fields.length - mostFields, 'more fact')}</p>
      )}
    </div>
  );
}
