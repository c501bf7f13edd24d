import { useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { UseMutationResult } from '@tanstack/react-query';
import { planRows, type Cells } from '#core/cell-tables';
import type { KeptRow, TableImportReply } from '#contract/cell-tables';
import { counted } from '#contract/messages';
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
import type { TableRow } from './table-look';
import type { KeptTable } from './use-save-rows';
import { useTableDraft } from './use-table-draft';

/** What the person has selected, and what can be done with it. */
export interface Selected<Field extends string, Kept extends KeptRow<Field>> {
  readonly rows: readonly TableRow<Field, Kept>[];
  readonly onSet: (field: Field, text: string) => void;
  readonly onRemove: () => void;
  readonly onClear: () => void;
}

interface CellTableDeskProps<Field extends string, Kept extends KeptRow<Field>> {
  /** What it calls one row is also the key by which the address names one. */
  readonly of: KeptTable<Field, Kept>;
  readonly kept: readonly Kept[];
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
  const { of, kept, isShown } = props;
  const { look, thing } = of;
  const [search, setSearch] = useSearchParams();
  const [plan, setPlan] = useState<TableImportReply<Field> | undefined>();
  const draft = useTableDraft(of, kept);
  const { all, count, chosen, canSave } = draft;
  const shown = useMemo(() => all.filter((row) => row.reply === undefined || isShown(row)), [all, isShown]);
  const rows = useKeptRows(shown, ({ key }) => key);
  const named = look.label.toLowerCase();
  useKeys([
    { key: 'Ctrl+s', says: `save the ${named}`, inFields: true, act: draft.store },
    { key: 'Ctrl+d', says: 'fill the range down from its first row', act: () => undefined },
    { key: 'Ctrl+z', says: 'undo the last step', act: draft.undoStep },
  ]);
  /** The new row has the cursor, wherever it stands. */
  const addRow = () => {
    const key = draft.addRow(props.beginsWith(rows.at(-1)));
    setSearch((before) => searchWith(before, { [thing]: key }), { replace: true });
  };
  const takePlan = () => {
    if (plan) draft.takePlan(plan);
    setPlan(undefined);
  };
  return (
    <Page
      headline={props.headline({ changed: count, faulty: draft.faulty })}
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={draft.store}>
            Save {count > 0 ? counted(count, thing) : named} <Key>Ctrl S</Key>
          </Button>
          {count > 0 && (
            <>
              <Button writes onClick={draft.undoStep}>
                Undo last step
              </Button>
              <Button writes onClick={draft.discard}>
                Discard
              </Button>
            </>
          )}
          <Button writes onClick={addRow}>
            New {thing}
          </Button>
          {props.moreActions}
          <ImportButton
            label={`File of ${named}`}
            isReading={props.plan.isPending}
            onFile={(file) => props.plan.mutate(file, { onSuccess: setPlan, onError: showProblem })}
          />
        </>
      }
      aside={<ExportLinks address={props.exportAddress} />}
    >
      {props.note}
      <StaleRows thing={thing} titles={draft.staleTitles} onKeep={draft.keepMine} />
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        {props.filter}
        {chosen.length > 0 &&
          props.bar({
            rows: chosen,
            onSet: draft.setInChosen,
            onRemove: draft.removeChosen,
            onClear: draft.markNone,
          })}
        {rows.length === 0 ? (
          props.empty
        ) : (
          <CellTableGrid
            key={search.get(thing)}
            look={look}
            rows={rows}
            marked={draft.marked}
            sought={search.get(thing)}
            onMark={draft.mark}
            onEdit={(edits, added) => draft.edit(edits, props.beginsWith(rows.at(-1)), added)}
            takesBlock={(block) => {
              const pasted = planRows(look.table, block, kept);
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
