import { Plus, Trash2 } from 'lucide-react';
import type { ItemBody, PartBody, ReportItemsReply } from '#contract/report-items';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import { CompositeBar, ordinalWord } from './composite-bar';
import { nextPart } from './item-draft';

interface PartRowsProps {
  readonly item: ItemBody;
  readonly reply: ReportItemsReply;
  readonly onChange: (parts: PartBody[]) => void;
}

/** The parts of a composite, each a line with its weight, over the bar that they fill. */
export function PartRows({ item, reply, onChange }: PartRowsProps) {
  const { parts } = item;
  const change = (index: number, changed: Partial<PartBody>) =>
    onChange(parts.with(index, { ...parts[index]!, ...changed }));
  const next = nextPart(item, reply);
  return (
    <div className="space-y-2">
      <CompositeBar item={item} reply={reply} />
      {parts.map((part, index) => (
        <div key={index} className="flex items-center gap-2">
          <Choice
            label={`Item of part ${index + 1}`}
            value={part.itemId}
            onChange={(event) => change(index, { itemId: Number(event.target.value) })}
          >
            {reply.items.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
          of the
          <Choice
            label={`Period of part ${index + 1}`}
            value={part.ordinal}
            onChange={(event) => change(index, { ordinal: Number(event.target.value) })}
          >
            {[1, 2, 3, 4].map((ordinal) => (
              <option key={ordinal} value={ordinal}>
                {ordinalWord(ordinal)} {reply.items.find(({ id }) => id === part.itemId)?.periodKind ?? 'period'}
              </option>
            ))}
          </Choice>
          in it counts
          <input
            aria-label={`Weight of part ${index + 1}`}
            value={part.weight}
            onChange={(event) => change(index, { weight: event.target.value.trim().replace(',', '.') })}
            className="figures h-8 w-[70px] rounded-md border border-control bg-surface px-2 text-right"
          />
          <button
            type="button"
            aria-label={`Remove part ${index + 1}`}
            onClick={() => onChange(parts.toSpliced(index, 1))}
            className="rounded p-1.5 text-quiet hover:bg-waratah-soft hover:text-waratah"
          >
            <Trash2 size={14} />
          </button>
        </div>
      ))}
      <Button disabled={!next} onClick={() => next && onChange([...parts, next])}>
        <Plus size={14} aria-hidden /> Add a part
      </Button>
    </div>
  );
}
