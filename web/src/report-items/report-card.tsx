import { ArrowLeft, ArrowRight } from 'lucide-react';
import { familySentence, type ItemReply, type ReportItemsReply } from '#contract/report-items';
import { IconButton } from '../ui/button';
import { showLabel } from '../ui/format';
import { postedInWords, sourceWords } from './words';

interface ReportCardProps {
  readonly reply: ReportItemsReply;
  readonly chosenId: number | undefined;
  readonly onChoose: (item: ItemReply) => void;
  /** Moves an item one place to the left or right. */
  readonly onMove: (item: ItemReply, by: -1 | 1) => void;
}

/** The items as the columns of a report card, each with what families will see of it. */
export function ReportCard({ reply, chosenId, onChoose, onMove }: ReportCardProps) {
  return (
    <div className="flex overflow-x-auto" role="list" aria-label="Items of the report card">
      {reply.items.map((item, index) => (
        <div
          key={item.id}
          role="listitem"
          className={`group relative min-w-[180px] flex-1 border-r border-hairline last:border-r-0 ${item.id === chosenId ? 'bg-eucalypt-soft' : ''}`}
        >
          <button
            type="button"
            aria-pressed={item.id === chosenId}
            onClick={() => onChoose(item)}
            className="flex h-full w-full flex-col px-4 pt-2 pb-2.5 text-left"
          >
            <span className="flex items-baseline justify-between gap-2">
              <b className="truncate">{item.name}</b>
              <span
                className={`shrink-0 font-bold text-eucalypt ${item.familyView === 'descriptor' ? 'max-w-[60%] truncate' : 'figures text-[18px]'}`}
              >
                {sampleOf(item)}
              </span>
            </span>
            <span className="mt-0.5 block text-[12px] leading-snug text-quiet">
              {postedInWords(item, reply.periods)}, {sourceWords[item.source]}
              {item.onTranscript && ', for the transcript'}
            </span>
            <span className="mt-1 block text-[12px] leading-snug">{familySentence(item)}</span>
          </button>
          <span className="absolute right-2 bottom-1.5 hidden gap-0.5 group-focus-within:flex group-hover:flex">
            <IconButton writes label={`Move ${item.name} left`} disabled={index === 0} onClick={() => onMove(item, -1)}>
              <ArrowLeft size={13} />
            </IconButton>
            <IconButton
              writes
              label={`Move ${item.name} right`}
              disabled={index === reply.items.length - 1}
              onClick={() => onMove(item, 1)}
            >
              <ArrowRight size={13} />
            </IconButton>
          </span>
        </div>
      ))}
    </div>
  );
}

/** What would stand in the column: the second label from the top, as most families see one like it. */
function sampleOf({ familyView, labels, descriptors, digits }: ItemReply): string {
  const label = showLabel(labels[1] ?? labels[0] ?? '–');
  const percent = (88.46).toFixed(digits);
  switch (familyView) {
    case 'hidden':
      return '';
    case 'percent':
      return percent;
    case 'both':
      return `${percent} ${label}`;
    case 'descriptor':
      return descriptors[1] || descriptors[0] || label;
    case 'label':
      return label;
  }
}
