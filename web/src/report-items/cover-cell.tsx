import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { ItemRulesBody, CoverReply, ExceptionBody } from '#contract/report-items';
import { Button } from '../ui/button';
import { TextField } from '../ui/field';
import { RuleSquare } from '../ui/state-marks';

interface CoverCellProps {
  readonly courseId: number;
  readonly courseTitle: string;
  readonly itemId: number;
  readonly itemName: string;
  readonly cover: CoverReply | undefined;
  /** Whether the course reports the item as things are saved. */
  readonly reportsNow: boolean;
  readonly assignment: ItemRulesBody;
  readonly onChange: (exceptions: ExceptionBody[]) => void;
}

/** Whether a course reports an item and what says so; opened, it makes an exception or takes one back. */
export function CoverCell(props: CoverCellProps) {
  const { courseId, courseTitle, itemId, itemName, cover, reportsNow, assignment, onChange } = props;
  const reports = cover?.reports ?? false;
  const exception = assignment.exceptions.find((each) => each.courseId === courseId && each.itemId === itemId);
  const [reason, setReason] = useState('');
  const others = assignment.exceptions.filter((each) => each !== exception);
  const says = wordsOf(cover, assignment);
  const look = reports !== reportsNow ? (reports ? 'added' : 'removed') : markOf(cover);
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`${itemName} of ${courseTitle}: ${says}`}
        title={says}
        className="grid h-6 w-full place-items-center rounded hover:bg-eucalypt-soft"
      >
        {look ? <RuleSquare look={look} label={says} /> : <span className="text-quiet">·</span>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          className="z-40 w-[300px] rounded-md border border-hairline bg-surface p-4 text-[13px] shadow-float"
        >
          <p className="font-bold">
            {courseTitle} {reports ? 'reports' : 'does not report'} {itemName}
          </p>
          <p className="mt-0.5 text-quiet first-letter:uppercase">{says}.</p>
          {exception ? (
            <Popover.Close asChild>
              <Button writes className="mt-3" onClick={() => onChange(others)}>
                Follow the rules again
              </Button>
            </Popover.Close>
          ) : (
            <>
              <TextField
                className="mt-3"
                label="Reason for an exception"
                value={reason}
                maxLength={120}
                onChange={(event) => setReason(event.target.value)}
              />
              <Popover.Close asChild>
                <Button
                  writes
                  className="mt-2"
                  onClick={() =>
                    onChange([
                      ...others,
                      { courseId, itemId, effect: reports ? 'omits' : 'reports', reason: reason.trim() },
                    ])
                  }
                >
                  Make an exception: {reports ? 'do not report it' : 'report it'}
                </Button>
              </Popover.Close>
            </>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function wordsOf(cover: CoverReply | undefined, { exceptions }: ItemRulesBody): string {
  if (!cover) return 'no rule speaks of it';
  if (cover.kind === 'rule') return `by rule ${cover.at + 1}`;
  const reason = exceptions[cover.at]?.reason;
  return reason ? `an exception: ${reason}` : 'an exception';
}

function markOf(cover: CoverReply | undefined): 'rule' | 'exception' | 'omitted' | undefined {
  if (!cover) return undefined;
  if (cover.kind === 'rule') return cover.reports ? 'rule' : undefined;
  return cover.reports ? 'exception' : 'omitted';
}
