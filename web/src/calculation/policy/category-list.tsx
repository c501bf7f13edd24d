import { ArrowDown, ArrowUp, Lock, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { CategoryBody, CategoryReply, SaveCategoriesRequest } from '#contract/calculation';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { ProblemError } from '../../shell/api';
import { showProblem } from '../../shell/show-problem';
import { Button, IconButton } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { categoryTint, categoryTints } from '../category-tint';
import { Swatch } from './share-table';

interface CategoryListProps {
  readonly saved: readonly CategoryReply[];
  /** Those of the school, shown above and not to be changed here. */
  readonly locked?: readonly CategoryReply[];
  readonly revision: string;
  readonly save: {
    readonly mutate: (
      request: SaveCategoriesRequest,
      then: { onSuccess: (after: object) => void; onError: (error: unknown) => void },
    ) => void;
    readonly error: Error | null;
    readonly isPending: boolean;
  };
  readonly description: React.ReactNode;
  readonly onClose: () => void;
}

/** A list of categories to name, order, colour, switch off and take out; saved as a whole. */
export function CategoryList({ saved, locked = [], save, description, onClose, ...opened }: CategoryListProps) {
  // A list that somebody else saves meanwhile is refused rather than overwritten.
  const [revision] = useState(opened.revision);
  const [rows, setRows] = useState<readonly CategoryBody[]>(
    saved.map(({ id, name, tint, isActive }) => ({ id, name, tint, isActive })),
  );
  const tellOfChange = useTellOfChange();
  const problem = save.error instanceof ProblemError ? save.error : undefined;
  const usesOf = (id: number | null) => saved.find((category) => category.id === id)?.assignments ?? 0;
  const change = (at: number, changed: Partial<CategoryBody>) => setRows(rows.with(at, { ...rows[at]!, ...changed }));
  const swap = (at: number, other: number) => setRows(rows.with(at, rows[other]!).with(other, rows[at]!));
  const store = () =>
    save.mutate(
      { revision, categories: [...rows] },
      {
        onSuccess: (after) => {
          tellOfChange('The categories are saved.', after);
          onClose();
        },
        onError: (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
      },
    );
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Categories"
      description={description}
      footer={
        <>
          <Button look="main" disabled={save.isPending || rows.some(({ name }) => name.trim() === '')} onClick={store}>
            Save the categories
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      {locked.length > 0 && (
        <p className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px] text-quiet">
          <Lock size={13} aria-hidden /> Of the school:
          {locked.map(({ id, name, tint }) => (
            <span key={id}>
              <Swatch tint={tint} />
              {name}
            </span>
          ))}
        </p>
      )}
      <ul className="space-y-1.5">
        {rows.map(({ id, name, tint, isActive }, at) => (
          <li key={id ?? `new ${at}`}>
            <div className="flex items-center gap-1.5">
              <button
                type="button"
                aria-label={`Next colour for ${name || 'the new category'}`}
                title="Next colour"
                onClick={() => change(at, { tint: (tint + 1) % categoryTints })}
                style={{ background: categoryTint(tint).fill }}
                className="size-6 shrink-0 rounded border border-control"
              />
              <input
                aria-label={`Name of category ${at + 1}`}
                aria-invalid={problem?.fault(`categories.${at}.name`) !== undefined}
                value={name}
                maxLength={40}
                onChange={(event) => change(at, { name: event.target.value })}
                className={`h-8 min-w-0 flex-1 rounded-md border border-control bg-surface px-2 aria-invalid:border-waratah ${isActive ? '' : 'text-quiet line-through'}`}
              />
              <span className="w-[104px] text-right text-[12px] text-quiet">
                {usesOf(id) > 0 ? counted(usesOf(id), 'assignment') : 'not used'}
              </span>
              <Button
                writes
                look="quiet"
                className="w-[76px] justify-center px-1"
                onClick={() => change(at, { isActive: !isActive })}
              >
                {isActive ? 'Switch off' : 'Switch on'}
              </Button>
              <IconButton writes label={`Move ${name} up`} disabled={at === 0} onClick={() => swap(at, at - 1)}>
                <ArrowUp size={14} />
              </IconButton>
              <IconButton
                writes
                label={`Move ${name} down`}
                disabled={at === rows.length - 1}
                onClick={() => swap(at, at + 1)}
              >
                <ArrowDown size={14} />
              </IconButton>
              <IconButton writes label={`Remove ${name}`} onClick={() => setRows(rows.toSpliced(at, 1))}>
                <Trash2 size={14} />
              </IconButton>
            </div>
            {problem?.fault(`categories.${at}.name`) && (
              <p role="alert" className="mt-0.5 pl-8 text-[12px] text-waratah">
                {problem.fault(`categories.${at}.name`)}
              </p>
            )}
          </li>
        ))}
      </ul>
      {rows.length === 0 && <p className="py-3 text-quiet">None yet.</p>}
      <Button
        writes
        className="mt-3"
        onClick={() => setRows([...rows, { id: null, name: '', tint: rows.length % categoryTints, isActive: true }])}
      >
        <Plus size={14} aria-hidden /> Add a category
      </Button>
      <p className="mt-3 text-[12px] text-quiet">
        One that is switched off takes no new assignments; what is in it goes on counting. One with assignments cannot
        be removed. A new one counts once a policy gives it a weight.
      </p>
    </Dialog>
  );
}
