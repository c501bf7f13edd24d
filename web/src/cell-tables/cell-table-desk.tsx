import { useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { UseMutationResult } from '@tanstack/react-query';
import { planRows, type Cells } from '#core/cell-tables';
import type { KeptRow, SaveRowsRequest, TableImportReply } from '#contract/cell-tables';
import { counted, type CountedThing } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { ProblemError } from '../shell/api';
import type { createDraftStore } from '../shell/draft-store';
import { showProblem } from '../shell/show-problem';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { useKeptRows } from '../ui/grid/use-kept-rows';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { CellTableGrid } from './cell-table-grid';
import { ImportRowsDialog } from './import-rows-dialog';
import { StaleRows } from './stale-rows';
import { ExportLinks, ImportButton } from './table-files';
import type { TableLook, TableRow } from './table-look';
import {
  noChanges,
  rebased,
  requestOf,
  staleKeys,
  tableRows,
  withEdits,
  withNewRow,
  withNewRows,
  withoutRows,
  withPlan,
  type RowChanges,
} from './table-rows';

/** What the person has selected, and what can be done with it. */
export interface Selected<Field extends string, Kept extends KeptRow<Field>> {
  readonly rows: readonly TableRow<Field, Kept>[];
  readonly onSet: (field: Field, text: string) => void;
  readonly onRemove: () => void;
  readonly onClear: () => void;
}

interface CellTableDeskProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly schoolId: number;
  readonly look: TableLook<Field, Kept>;
  /** What one row is, such as "course"; also the key by which the address names one. */
  readonly thing: CountedThing;
  readonly kept: readonly Kept[];
  readonly drafts: ReturnType<typeof createDraftStore<RowChanges<Field>, null>>;
  readonly save: UseMutationResult<object, Error, SaveRowsRequest<Field>>;
  readonly plan: UseMutationResult<TableImportReply<Field>, Error, File>;
  /** Of the files that hold all rows. */
  readonly exportAddress: string;
  readonly headline: (counts: { readonly changed: number; readonly faulty: number }) => ReactNode;
  /** What a new row begins with, beside which one. */
  readonly beginsWith: (beside: TableRow<Field, Kept> | undefined) => Partial<Cells<Field>>;
  /** The same function as long as what it looks for is the same. */
  readonly isShown: (row: TableRow<Field, Kept>) => boolean;
  readonly filter: ReactNode;
  readonly moreActions?: ReactNode;
  readonly note?: ReactNode;
  readonly bar: (selected: Selected<Field, Kept>) => ReactNode;
  readonly empty: ReactNode;
}

/** Rows of cells as they are drafted, selected, taken in from files and saved: all of it, or nothing. */
export function CellTableDesk<Field extends string, Kept extends KeptRow<Field>>(
  props: CellTableDeskProps<Field, Kept>,
) {
  const { schoolId, look, thing, kept, drafts, save, isShown } = props;
  const { table } = look;
  const changes: RowChanges<Field> = drafts.use(schoolId)?.now ?? noChanges;
  const [search, setSearch] = useSearchParams();
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [plan, setPlan] = useState<TableImportReply<Field> | undefined>();
  const tellOfChange = useTellOfChange();
  const all = useMemo(() => tableRows(table, kept, changes, look.shared), [table, kept, changes, look.shared]);
  const shown = useMemo(() => all.filter((row) => row.reply === undefined || isShown(row)), [all, isShown]);
  const rows = useKeptRows(shown, ({ key }) => key);
  const faulty = all.filter(({ faults }) => Object.keys(faults).length > 0).length;
  const count = Object.keys(changes.cells).length + changes.removed.length;
  const stale = staleKeys(changes, kept);
  const chosen = all.filter(({ key }) => marked.has(key));
  const change = (next: RowChanges<Field>) => drafts.change(schoolId, null, noChanges, next);
  const canSave = count > 0 && faulty === 0 && stale.length === 0 && !save.isPending;
  const titleOf = (key: string) => {
    const found = kept.find(({ id }) => String(id) === key);
    return found ? look.titleOf(found.cells) : key;
  };
  const store = () => {
    if (!canSave) return;
    save.mutate(requestOf(changes), {
      onSuccess: (after) => {
        drafts.discard(schoolId);
        setMarked(new Set());
        tellOfChange(`${counted(count, thing)} saved.`, after);
      },
      onError: (error) => {
        if (error instanceof ProblemError && error.problem.errors[0])
          toast.error(error.problem.title, { description: error.problem.errors[0].detail });
        else showProblem(error);
      },
    });
  };
  useKeys([
    { key: 'Ctrl+s', says: `save the ${look.label.toLowerCase()}`, inFields: true, act: store },
    { key: 'Ctrl+d', says: 'fill the range down from its first row', act: () => undefined },
    { key: 'Ctrl+z', says: 'undo the last step', act: () => drafts.undo(schoolId) },
  ]);
  /** The new row has the cursor, wherever it stands. */
  const addRow = () => {
    const added = withNewRow(table, changes, props.beginsWith(rows.at(-1)));
    change(added.changes);
    setSearch((before) => searchWith(before, { [thing]: added.key }), { replace: true });
  };
  const takePlan = () => {
    if (!plan) return;
    change(withPlan(changes, plan, all));
    setPlan(undefined);
  };
  const selected: Selected<Field, Kept> = {
    rows: chosen,
    onSet: (field, value) =>
      change(
        withEdits(
          table,
          changes,
          chosen.map((row) => [row, field, value] as const),
        ),
      ),
    onRemove: () => {
      change(withoutRows(changes, chosen));
      setMarked(new Set());
    },
    onClear: () => setMarked(new Set()),
  };
  const mark = (keys: readonly string[], isMarked: boolean) =>
    setMarked((before) => new Set(isMarked ? [...before, ...keys] : [...before].filter((key) => !keys.includes(key))));
  return (
    <Page
      headline={props.headline({ changed: count, faulty })}
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={store}>
            Save {count > 0 ? counted(count, thing) : look.label.toLowerCase()} <Key>Ctrl S</Key>
          </Button>
          {count > 0 && (
            <>
              <Button onClick={() => drafts.undo(schoolId)}>Undo last step</Button>
              <Button onClick={() => drafts.discard(schoolId)}>Discard</Button>
            </>
          )}
          <Button onClick={addRow}>New {thing}</Button>
          {props.moreActions}
          <ImportButton
            label={`File of ${look.label.toLowerCase()}`}
            isReading={props.plan.isPending}
            onFile={(file) => props.plan.mutate(file, { onSuccess: setPlan, onError: showProblem })}
          />
        </>
      }
      aside={<ExportLinks address={props.exportAddress} />}
    >
      {props.note}
      <StaleRows thing={thing} titles={stale.map(titleOf)} onKeep={() => change(rebased(changes, kept))} />
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        {props.filter}
        {chosen.length > 0 && props.bar(selected)}
        {rows.length === 0 ? (
          props.empty
        ) : (
          <CellTableGrid
            key={search.get(thing)}
            look={look}
            rows={rows}
            marked={marked}
            sought={search.get(thing)}
            onMark={mark}
            onEdit={(edits, added) =>
              change(withNewRows(table, withEdits(table, changes, edits), props.beginsWith(rows.at(-1)), added))
            }
            takesBlock={(block) => {
              const pasted = planRows(table, block, kept);
              if (pasted?.headerRow !== 1) return false;
              const { columns, ...planned } = pasted;
              setPlan({ ...planned, fileName: 'What was pasted', fields: Object.keys(columns) });
              return true;
            }}
          />
        )}
      </Panel>
      {plan && <ImportRowsDialog look={look} plan={plan} onTake={takePlan} onClose={() => setPlan(undefined)} />}
    </Page>
  );
}
