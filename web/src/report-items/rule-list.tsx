import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { GripVertical, Trash2 } from 'lucide-react';
import type { KeyboardEvent, ReactNode } from 'react';
import type { ReportItemsReply, RuleBody } from '#contract/report-items';
import { showCount } from '../ui/format';
import { RuleSentence } from './rule-sentence';

interface RuleListProps {
  readonly rules: readonly RuleBody[];
  readonly savedRules: readonly RuleBody[];
  readonly reply: ReportItemsReply;
  readonly schoolName: string;
  /** How many courses each rule decides. */
  readonly decides: readonly number[];
  readonly onChange: (rules: RuleBody[]) => void;
}

/** The rules in their order, the later one standing; dragged, or moved with Alt and the arrows. */
export function RuleList({ rules, savedRules, reply, schoolName, decides, onChange }: RuleListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  const move = (from: number, to: number) => {
    if (to < 0 || to >= rules.length || from === to) return;
    const moved = rules.toSpliced(from, 1);
    moved.splice(to, 0, rules[from]!);
    onChange(moved);
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over) move(Number(active.id), Number(over.id));
  };
  return (
    <DndContext sensors={sensors} onDragEnd={onDragEnd}>
      <ol className="space-y-2" aria-label="Rules">
        {rules.map((rule, index) => (
          <RuleRow
            key={index}
            index={index}
            isChanged={JSON.stringify(rule) !== JSON.stringify(savedRules[index])}
            decides={decides[index] ?? 0}
            onMove={(by) => move(index, index + by)}
            onRemove={() => onChange(rules.toSpliced(index, 1))}
          >
            <RuleSentence
              rule={rule}
              reply={reply}
              schoolName={schoolName}
              onChange={(changed) => onChange(rules.with(index, changed))}
            />
          </RuleRow>
        ))}
      </ol>
    </DndContext>
  );
}

interface RuleRowProps {
  readonly index: number;
  readonly isChanged: boolean;
  readonly decides: number;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
  readonly children: ReactNode;
}

function RuleRow({ index, isChanged, decides, onMove, onRemove, children }: RuleRowProps) {
  const drop = useDroppable({ id: index });
  const drag = useDraggable({ id: index });
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.altKey
      ? ({ ArrowUp: -1, ArrowDown: 1 } as const)[event.key as 'ArrowUp' | 'ArrowDown']
      : undefined;
    if (!by) return;
    event.preventDefault();
    onMove(by);
  };
  const offset = drag.transform;
  return (
    // Its keys work wherever in it the focus is.
    // oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <li
      ref={(element) => {
        drop.setNodeRef(element);
        drag.setNodeRef(element);
      }}
      onKeyDown={onKeyDown}
      style={offset ? { transform: `translateY(${offset.y}px)` } : undefined}
      className={`relative rounded-md border border-hairline bg-surface py-1.5 pr-2 pl-1 ${isChanged ? 'border-l-[3px] border-l-wattle-fill' : ''} ${offset ? 'z-10 shadow-float' : ''} ${drop.isOver && !offset ? 'border-t-2 border-t-eucalypt' : ''}`}
    >
      <div className="flex items-start gap-1">
        <button
          type="button"
          aria-label={`Rule ${index + 1}: drag to reorder, or Alt and an arrow`}
          className="flex shrink-0 cursor-grab touch-none items-center gap-0.5 rounded py-1 text-quiet hover:text-ink"
          {...drag.listeners}
          {...drag.attributes}
        >
          <GripVertical size={14} aria-hidden />
          <span className="figures text-[13px] font-bold">{index + 1}</span>
        </button>
        <div className="min-w-0 flex-1 pl-1">{children}</div>
        <div className="flex shrink-0 flex-col items-end gap-1 pt-1">
          <span className="figures text-[12px] text-quiet" title="courses that this rule decides">
            {showCount(decides)}
          </span>
          <button
            type="button"
            aria-label={`Remove rule ${index + 1}`}
            onClick={onRemove}
            className="rounded p-1 text-quiet hover:bg-waratah-soft hover:text-waratah"
          >
            <Trash2 size={13} />
          </button>
        </div>
      </div>
    </li>
  );
}
