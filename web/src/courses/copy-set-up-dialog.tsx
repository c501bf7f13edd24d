import { useEffect, useState } from 'react';
import { copiedParts, type CopiedPart, type CourseReply } from '#contract/courses';
import { counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { CheckField } from '../ui/field';
import { useCopySetUp, usePreviewCopy } from './queries';

const partNames: Record<CopiedPart, string> = {
  items: 'its exceptions from the rules',
  scale: 'its scale',
  facts: 'credits, transcript and GPA',
};

interface CopySetUpDialogProps {
  readonly source: CourseReply;
  readonly courses: readonly CourseReply[];
  readonly onClose: () => void;
}

/** Copies the set-up of one course onto others, and points out first what to know of each. */
export function CopySetUpDialog({ source, courses, onClose }: CopySetUpDialogProps) {
  const [parts, setParts] = useState<readonly CopiedPart[]>(copiedParts);
  const [toIds, setToIds] = useState<readonly number[]>([]);
  const [text, setText] = useState('');
  const { mutate: ask, data: preview } = usePreviewCopy(source.id);
  const copy = useCopySetUp(source.id);
  const tellOfChange = useTellOfChange();
  const { periodId: fromPeriodId } = useScope();
  const request = { parts: [...parts], toIds: [...toIds], fromPeriodId };
  const asked = JSON.stringify(request);
  useEffect(() => {
    const next = JSON.parse(asked) as typeof request;
    if (next.toIds.length > 0) ask(next);
  }, [ask, asked]);
  const shown = courses.filter(
    ({ id, cells }) => id !== source.id && cells.title.toLowerCase().includes(text.trim().toLowerCase()),
  );
  const previewed = toIds.length > 0 ? (preview?.courses ?? []) : [];
  const changing = previewed.filter(({ changes }) => changes.length > 0);
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Copy the set-up of ${source.cells.title}`}
      footer={
        <>
          <Button
            look="main"
            disabled={changing.length === 0 || copy.isPending}
            onClick={() =>
              copy.mutate(request, {
                onSuccess: (after) => {
                  onClose();
                  tellOfChange(`${counted(changing.length, 'course')} set up like ${source.cells.title}.`, after);
                },
                onError: showProblem,
              })
            }
          >
            Copy onto {counted(changing.length, 'course')}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="mb-3 flex gap-6">
        {copiedParts.map((part) => (
          <CheckField
            key={part}
            label={partNames[part]}
            checked={parts.includes(part)}
            onChange={(event) =>
              setParts(event.target.checked ? [...parts, part] : parts.filter((each) => each !== part))
            }
          />
        ))}
      </div>
      <div className="grid grid-cols-2 gap-4">
        <div>
          <input
            aria-label="Find a course"
            placeholder="find a course"
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="mb-2 h-8 w-full rounded-md border border-control bg-surface px-2"
          />
          <ul
            className="h-[300px] overflow-auto rounded-md border border-hairline p-2"
            aria-label="Courses to copy onto"
          >
            {shown.map(({ id, cells }) => (
              <li key={id}>
                <CheckField
                  label={cells.title}
                  checked={toIds.includes(id)}
                  onChange={(event) =>
                    setToIds(event.target.checked ? [...toIds, id] : toIds.filter((each) => each !== id))
                  }
                />
              </li>
            ))}
          </ul>
        </div>
        <ul className="h-[340px] space-y-2 overflow-auto text-[13px]" aria-label="What would change">
          {previewed.map(({ id, title, changes, warnings }) => (
            <li key={id}>
              <b>{title}</b>: {changes.length > 0 ? changes.join(', ') : 'nothing changes'}
              {warnings.map((warning) => (
                <span key={warning} className="block text-wattle">
                  Note that {warning}.
                </span>
              ))}
            </li>
          ))}
          {toIds.length === 0 && <li className="text-quiet">Choose courses at the left to see what would change.</li>}
        </ul>
      </div>
    </Dialog>
  );
}
