import { Plus, Trash2 } from 'lucide-react';
import { isOfEvidence } from '#core/calculation';
import type { CategoryReply, CategoryShareBody, PolicyBody } from '#contract/calculation';
import { counted } from '#contract/messages';
import { WeightBar } from '../../ui/weight-bar';
import { Select } from '../../ui/choice/select';
import { categoryTint } from '../category-tint';
import { NumberInSentence } from './number-in-sentence';
import { effectSentence, type optionEffects } from './option-effects';

interface ShareTableProps {
  readonly body: PolicyBody;
  /** The categories that the place may use. */
  readonly categories: readonly CategoryReply[];
  readonly effects: ReturnType<typeof optionEffects> | undefined;
  readonly onChange: (shares: CategoryShareBody[]) => void;
}

/** The categories of a policy over the bar that their weights fill, with what is dropped and limited in each. */
export function ShareTable({ body, categories, effects, onChange }: ShareTableProps) {
  const shares = body.categories;
  const isWeighed = body.method !== 'totalPoints';
  const isOfPoints = !isOfEvidence(body.method);
  const nameOf = (id: number) => categories.find((category) => category.id === id)?.name ?? `category ${id}`;
  const change = (at: number, changed: Partial<CategoryShareBody>) =>
    onChange(shares.with(at, { ...shares[at]!, ...changed }));
  const others = categories.filter(
    ({ id, isActive }) => isActive && !shares.some(({ categoryId }) => categoryId === id),
  );
  return (
    <div className="space-y-2">
      {isWeighed ? (
        <WeightBar
          isAlarming={false}
          parts={shares.map(({ categoryId, weight }) => ({
            name: nameOf(categoryId),
            weight,
            ...categoryTint(categories.find(({ id }) => id === categoryId)?.tint ?? 0),
          }))}
          onOff={(off, isTooMuch) =>
            `The weights make ${off} ${isTooMuch ? 'more' : 'less'} than 100; each counts as its share of what they make.`
          }
        />
      ) : (
        <p className="text-[13px] text-quiet">All points go into one pot, so the categories weigh nothing.</p>
      )}
      <table className="w-full table-fixed text-[13px]">
        <colgroup>
          <col className="w-[150px]" />
          {isWeighed && <col className="w-[70px]" />}
          {isOfPoints && <col className="w-[92px]" />}
          <col className="w-[86px]" />
          <col />
          <col className="w-[34px]" />
        </colgroup>
        <thead>
          <tr className="text-left text-quiet [&_th]:h-7 [&_th]:border-b [&_th]:border-hairline [&_th]:font-semibold">
            <th>Category</th>
            {isWeighed && <th>Weight</th>}
            {isOfPoints && <th>Drop lowest</th>}
            <th>Limit %</th>
            <th>Here</th>
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shares.map(({ categoryId, weight, dropLowest, cap }, at) => (
            <tr key={categoryId} className="[&_td]:h-8 [&_td]:border-b [&_td]:border-hairline">
              <td className="truncate font-semibold">
                <Swatch tint={categories.find(({ id }) => id === categoryId)?.tint ?? 0} />
                {nameOf(categoryId)}
              </td>
              {isWeighed && (
                <td>
                  <NumberInSentence
                    label={`Weight of ${nameOf(categoryId)}`}
                    value={weight}
                    onChange={(text) => change(at, { weight: text ?? '' })}
                  />
                </td>
              )}
              {isOfPoints && (
                <td>
                  <Select
                    aria-label={`Drop lowest of ${nameOf(categoryId)}`}
                    value={dropLowest}
                    onChange={(event) => change(at, { dropLowest: Number(event.target.value) })}
                    className="figures h-7 rounded border border-control bg-surface px-1"
                  >
                    {dropChoices(dropLowest).map((count) => (
                      <option key={count} value={count}>
                        {count === 0 ? 'none' : count}
                      </option>
                    ))}
                  </Select>
                </td>
              )}
              <td>
                <NumberInSentence
                  label={`Limit of ${nameOf(categoryId)}`}
                  value={cap}
                  empty="none"
                  onChange={(text) => change(at, { cap: text })}
                />
              </td>
              <td className="py-1! text-[12px] leading-snug text-quiet">
                {hereWords(categoryId, dropLowest, effects)}
              </td>
              <td>
                <button
                  type="button"
                  aria-label={`Remove ${nameOf(categoryId)} from the policy`}
                  onClick={() => onChange(shares.toSpliced(at, 1))}
                  className="rounded p-1.5 text-quiet hover:bg-waratah-soft hover:text-waratah"
                >
                  <Trash2 size={14} />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {others.length > 0 && (
        <p className="flex flex-wrap items-center gap-2 text-[13px] text-quiet">
          Not in it:
          {others.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              onClick={() => onChange([...shares, { categoryId: id, weight: '0', dropLowest: 0, cap: null }])}
              className="inline-flex items-center gap-1 rounded-md border border-dashed border-control px-2 py-0.5 font-semibold hover:border-eucalypt hover:text-eucalypt"
            >
              <Plus size={12} aria-hidden /> {name}
            </button>
          ))}
        </p>
      )}
    </div>
  );
}

export function Swatch({ tint }: { tint: number }) {
  return (
    <span
      aria-hidden
      style={{ background: categoryTint(tint).fill }}
      className="mr-2 inline-block size-3 rounded-[3px] border border-control align-[-1px]"
    />
  );
}

/** Up to five, and whatever is set now. */
function dropChoices(set: number): number[] {
  const usual = [0, 1, 2, 3, 4, 5];
  return usual.includes(set) ? usual : [...usual, set];
}

function hereWords(categoryId: number, dropLowest: number, effects: ShareTableProps['effects']): string {
  if (!effects) return '';
  const results = effects.rows.flatMap(({ categories }) => categories.get(categoryId) ?? []);
  const most = Math.max(0, ...results.map(({ counted, dropped }) => counted + dropped));
  const parts = [most === 0 ? 'no scores' : `up to ${counted(most, 'score')}`];
  const [drop, cap] = [effects.drops.get(categoryId), effects.caps.get(categoryId)];
  if (drop) parts.push(`dropping ${dropLowest} ${effectSentence(drop)}`);
  if (cap) parts.push(`the limit ${effectSentence(cap)}`);
  return parts.join('; ');
}
