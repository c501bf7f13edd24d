import type { CalculationReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { Panel } from '../../ui/panel';
import { placeName, type PolicyView } from './policy-drafts';

interface PolicyListProps {
  readonly views: readonly PolicyView[];
  readonly reply: CalculationReply;
  readonly periods: readonly { readonly id: number; readonly name: string }[];
  readonly chosenKey: string;
  readonly onChoose: (view: PolicyView) => void;
}

/** The places that have a policy of their own, and for how many grade books of the period each holds. */
export function PolicyList({ views, reply, periods, chosenKey, onChoose }: PolicyListProps) {
  return (
    <Panel label="Policies" className="flex shrink-0 overflow-x-auto">
      {views.map((view) => {
        const books = reply.books.filter(({ policyId }) => policyId === view.saved?.id).length;
        return (
          <button
            key={view.key}
            type="button"
            aria-pressed={view.key === chosenKey}
            onClick={() => onChoose(view)}
            className={`min-w-[170px] border-r border-hairline px-4 py-2 text-left aria-pressed:bg-eucalypt-soft hover:bg-raised ${view.isDraft ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
          >
            <span className="block font-bold">{placeName(view.place, reply, periods)}</span>
            <span className="block text-[12px] text-quiet">
              {view.saved ? counted(books, 'grade book') : 'not saved yet'}
            </span>
          </button>
        );
      })}
    </Panel>
  );
}
