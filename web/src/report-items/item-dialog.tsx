import { useState } from 'react';
import type { PeriodKind } from '#core/calendar';
import type { ItemBody, ItemReply, ReportItemsReply } from '#contract/report-items';
import { counted } from '#contract/messages';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { SelectField } from '../ui/field';
import { bodyOfReply, changesValues, itemFaults, newItem } from './item-draft';
import { ItemEffect } from './item-effect';
import { ItemForm } from './item-form';
import { useAddItem, useItemEffect, useRemoveItem, useSaveItem } from './queries';

interface ItemDialogProps {
  readonly schoolId: number;
  readonly reply: ReportItemsReply;
  /** Undefined for a new one. */
  readonly item: ItemReply | undefined;
  /** Of the period that is looked at; a new item is posted in each such one. */
  readonly periodKind?: PeriodKind | undefined;
  readonly onClose: () => void;
  readonly onAdded: (item: ItemReply) => void;
}

/** Makes, changes or takes out a report item. What it was before can be brought back from the notice. */
export function ItemDialog({ schoolId, reply, item, periodKind, onClose, onAdded }: ItemDialogProps) {
  const [body, setBody] = useState<ItemBody>(() => (item ? bodyOfReply(item) : newItem(reply, periodKind)));
  const [windowsLike, setWindowsLike] = useState<number | null>(reply.items[0]?.id ?? null);
  const [add, save, remove] = [useAddItem(schoolId), useSaveItem(schoolId), useRemoveItem(schoolId)];
  const tellOfChange = useTellOfChange();
  const [isLooking, setIsLooking] = useState(false);
  const effect = useItemEffect(item?.id, isLooking ? body : undefined);
  const looksFirst = item !== undefined && !isLooking && changesValues(bodyOfReply(item), body);
  const error = add.error ?? save.error;
  const problem = error instanceof ProblemError ? error : undefined;
  const faults = itemFaults(body, item?.id ?? 0, reply);
  const isBusy = add.isPending || save.isPending || remove.isPending;
  const onError = (failure: unknown) =>
    failure instanceof ProblemError && failure.problem.errors.length > 0 ? setIsLooking(false) : showProblem(failure);

  const submit = () => {
    if (item) {
      save.mutate(
        { ...body, id: item.id, revision: item.revision },
        {
          onSuccess: (after) => {
            onClose();
            tellOfChange(`${body.name} is changed.`, after);
          },
          onError,
        },
      );
      return;
    }
    add.mutate(
      { ...body, windowsLike },
      {
        onSuccess: (after) => {
          onClose();
          const added = after.items.find(({ name }) => name === body.name.trim() || name === body.name)!;
          onAdded(added);
        },
        onError,
      },
    );
  };
  const takeOut = () => {
    if (!item) return;
    remove.mutate(item.id, {
      onSuccess: (after) => {
        onClose();
        tellOfChange(`${item.name} is deleted.`, after);
      },
      onError: showProblem,
    });
  };
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={item ? item.name : 'A new report item'}
      description={
        item && item.postedGrades > 0
          ? `${counted(item.postedGrades, 'grade')} posted; they stay as they are, and the change applies to what is posted next.`
          : undefined
      }
      footer={
        <>
          {looksFirst ? (
            <Button look="main" disabled={faults.length > 0 || isBusy} onClick={() => setIsLooking(true)}>
              See what it would do
            </Button>
          ) : (
            <Button look="main" disabled={faults.length > 0 || isBusy || (isLooking && !effect.data)} onClick={submit}>
              {item ? 'Save the item' : 'Add the item'}
            </Button>
          )}
          {isLooking ? (
            <Button onClick={() => setIsLooking(false)}>Back to the item</Button>
          ) : (
            <Button onClick={onClose}>Cancel</Button>
          )}
          <p className="min-w-0 flex-1 text-[13px] text-quiet">
            {problem?.problem.errors.length ? problem.problem.detail : faults[0]}
          </p>
          {item && !isLooking && <HistoryButton thing={`report-item ${item.id}`} called={item.name} onOpen={onClose} />}
          {item && !isLooking && (
            <Button look="danger" disabled={isBusy} onClick={takeOut}>
              Delete
            </Button>
          )}
        </>
      }
    >
      {isLooking ? (
        <ItemEffect effect={effect} />
      ) : (
        <fieldset disabled={isBusy} className="contents">
          <ItemForm
            item={body}
            reply={reply}
            fault={(field) => problem?.fault(field)}
            onChange={(change) => setBody((before) => ({ ...before, ...change }))}
          />
        </fieldset>
      )}
      {!item && (
        <SelectField
          className="mt-4 w-[320px]"
          label="Posting windows"
          value={windowsLike ?? ''}
          onChange={(event) => setWindowsLike(event.target.value === '' ? null : Number(event.target.value))}
        >
          {reply.items.map(({ id, name }) => (
            <option key={id} value={id}>
              the same as {name}
            </option>
          ))}
          <option value="">none yet; I set them in the calendar</option>
        </SelectField>
      )}
    </Dialog>
  );
}
