import { ShieldAlert, ShieldCheck } from 'lucide-react';
import { useSearchParams } from 'react-router';
import type { LogCheckReply, LogEntryReply, LogReply } from '#contract/changes';
import { counted } from '#contract/messages';
import { AwaitedPage } from '../shell/awaited-page';
import { closeDrawer, openDrawer } from '../shell/drawer-store';
import { Button } from '../ui/button';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showCount, showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Note, Panel } from '../ui/panel';
import { LogEntryDetails } from './log-entry-details';
import { LogFilters } from './log-filters';
import { logFilterOf, useLog, useLogCheck, useStartLogCheck } from './log-queries';
import { searchWith } from '../ui/address/search-with';

const columns: GridColumn<LogEntryReply>[] = [
  { id: 'at', header: 'When', width: '160px', cell: ({ at }) => showInstant(at) },
  { id: 'actor', header: 'Who', width: '150px', cell: ({ actor }) => actor },
  {
    id: 'action',
    header: 'What was done',
    cell: ({ action }) => <b className="block truncate font-semibold first-letter:uppercase">{action}</b>,
  },
  {
    id: 'thing',
    header: 'To what',
    width: '200px',
    cell: ({ called }) => <span className="text-quiet">{called}</span>,
  },
  { id: 'facts', header: 'Before and after', width: '30%', cell: ({ fields }) => <FirstFact fields={fields} /> },
];

/** Everything that was ever changed: who, when, what, before and after; and whether the log still holds together. */
export function LogPage() {
  const [search] = useSearchParams();
  const log = useLog(logFilterOf(search));
  const check = useLogCheck();
  return (
    <AwaitedPage queries={[log, check] as const}>
      {(pages, state) => (
        <LogDesk
          pages={pages.pages}
          check={state}
          isReading={log.isFetchingNextPage}
          onMore={() => void log.fetchNextPage()}
        />
      )}
    </AwaitedPage>
  );
}

interface LogDeskProps {
  readonly pages: readonly LogReply[];
  readonly check: LogCheckReply;
  readonly isReading: boolean;
  readonly onMore: () => void;
}

function LogDesk({ pages, check, isReading, onMore }: LogDeskProps) {
  const [search, setSearch] = useSearchParams();
  const start = useStartLogCheck();
  const entries = pages.flatMap((page) => page.entries);
  const hasMore = pages.at(-1)!.hasMore;
  const isFiltered = [...logFilterOf(search).keys()].length > 0;
  const choose = (entry: LogEntryReply) => {
    setSearch((before) => searchWith(before, { entry: String(entry.id) }), { replace: true });
    openDrawer(`Entry ${showCount(entry.id)}`, <LogEntryDetails key={entry.id} entry={entry} />);
  };
  return (
    <Page
      headline={<LogHeadline check={check} />}
      actions={
        <>
          <Button disabled={check.state === 'checking' || start.isPending} onClick={() => start.mutate()}>
            <ShieldCheck size={14} aria-hidden /> Check the chain
          </Button>
          <LogFilters people={pages[0]!.people} kinds={pages[0]!.kinds} onChange={closeDrawer} />
        </>
      }
      aside={
        <a
          href={`/api/log/export?${logFilterOf(search).toString()}`}
          className="font-semibold text-eucalypt hover:underline"
        >
          CSV of {isFiltered ? 'these entries' : 'all entries'}
        </a>
      }
    >
      {check.state === 'broken' && (
        <Note tone="blocks" title="The log does not hold together">
          <p>
            <ShieldAlert size={14} aria-hidden className="mr-1 inline" />
            Entry {showCount(check.faultAt ?? 0)} does not fit the one before it: it was changed, removed or added in
            the database itself. {counted(check.checked, 'entry')} before it hold.
          </p>
        </Note>
      )}
      <Panel className="flex min-h-[320px] flex-1 flex-col" label="Entries">
        <DataGrid
          filterIn={null}
          label="Entries of the log"
          columns={columns}
          rows={entries}
          rowKey={({ id }) => String(id)}
          chosenKey={search.get('entry')}
          onOpen={choose}
          minWidth={900}
          onEnd={hasMore && !isReading ? onMore : undefined}
          empty={
            isFiltered ? (
              <Empty title="No entry like that">
                <Button onClick={() => setSearch({})}>Show all entries</Button>
              </Empty>
            ) : (
              <Empty title="Nothing was changed yet">Everything saved from now on is listed here.</Empty>
            )
          }
        />
        {entries.length > 0 && (
          <p aria-live="polite" className="border-t border-hairline px-4 py-1.5 text-[12px] text-quiet">
            {counted(entries.length, 'entry')} shown
            {hasMore ? (isReading ? '; reading older ones …' : '; older ones follow as you scroll') : ', these are all'}
          </p>
        )}
      </Panel>
    </Page>
  );
}

function LogHeadline({ check: { state, checked, entries, checkedAt } }: { check: LogCheckReply }) {
  const all = <Strong>{counted(entries, 'entry')}</Strong>;
  if (state === 'checking' || state === 'waiting')
    return (
      <>
        The chain of the log is being checked: {showCount(checked)} of {all}.
      </>
    );
  if (state === 'failed') return <>The log could not be checked; the server’s own log says why.</>;
  const when = checkedAt === null ? '' : ` on ${showInstant(checkedAt)}`;
  return state === 'whole' ? (
    <>
      The log’s {all} were checked{when}: <Strong>nothing was altered, removed or put in</Strong>.
    </>
  ) : (
    <>
      The log’s {all} were checked{when}: <Strong tone="blocks">it was tampered with</Strong>.
    </>
  );
}

function FirstFact({ fields: [first, ...others] }: { fields: LogEntryReply['fields'] }) {
  if (!first) return <span className="text-quiet">no fact changed</span>;
  return (
    <span className="block truncate">
      <span className="text-quiet">{first.field}</span>{' '}
      {first.before && <del className="text-quiet">{first.before}</del>} {first.after === '' ? 'removed' : first.after}
      {others.length > 0 && <span className="text-quiet">, and {counted(others.length, 'more fact')}</span>}
    </span>
  );
}
