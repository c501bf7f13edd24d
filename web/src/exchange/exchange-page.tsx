import { useSearchParams } from 'react-router';
import { exchangeVersions } from '#core/exchange';
import type { ExchangeSummaryReply } from '#contract/exchange';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { shareDone } from '../files/words';
import { searchWith } from '../ui/address/search-with';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { ExchangePreview } from './exchange-preview';
import { PutZip } from './put-zip';
import { useExchanges } from './queries';

const columns: GridColumn<ExchangeSummaryReply>[] = [
  {
    id: 'name',
    header: 'Zip',
    sortBy: ({ fileName }) => fileName,
    cell: ({ fileName }) => <b className="font-semibold">{fileName}</b>,
  },
  {
    id: 'version',
    header: 'OneRoster',
    width: '110px',
    cell: ({ version }) => <span className="figures">{version}</span>,
  },
  {
    id: 'status',
    header: 'State',
    width: '170px',
    sortBy: ({ status }) => status,
    cell: (zip) => {
      if (zip.status === 'accepting') return <>being imported {shareDone(zip)}</>;
      if (zip.status === 'accepted') return 'imported';
      return <span className="font-semibold text-wattle">{zip.problem ? 'stopped' : 'read, not imported'}</span>;
    },
  },
  { id: 'by', header: 'By', width: '170px', cell: ({ readBy }) => readBy },
  {
    id: 'at',
    header: 'Read',
    width: '170px',
    sortBy: ({ readAt }) => readAt,
    cell: ({ readAt }) => showInstant(readAt),
  },
];

/** Rosters and grade books of the whole district, out and in. */
export function ExchangePage() {
  const zips = useExchanges();
  const { data: imports } = zips;
  const [search, setSearch] = useSearchParams();
  if (!imports) return <PageFace queries={[zips]} />;
  const open = Number(search.get('zip')) || null;
  const show = (id: number | null) =>
    setSearch((before) => searchWith(before, { zip: id === null ? null : String(id) }));
  if (open !== null) return <ExchangePreview key={open} id={open} onClose={() => show(null)} />;
  const taken = imports.filter(({ status }) => status === 'accepted').length;
  return (
    <Page
      headline={
        <>
          Rosters and grade books go out and come in as OneRoster zips; <Strong>{counted(taken, 'zip')}</Strong>{' '}
          {agreeing(taken, 'was')} imported so far.
        </>
      }
      below="Out goes what other systems can hold: schools, periods, people, courses, sections, enrollments, categories, assignments, scores and scales. Posted grades stay here."
      actions={exchangeVersions.map((version) => (
        <a
          key={version}
          href={`/api/exchange/export?version=${version}`}
          download
          className="inline-flex h-8 items-center rounded-md border border-hairline bg-surface px-3 font-semibold hover:border-control"
        >
          Export as OneRoster {version}
        </a>
      ))}
    >
      <PutZip onRead={show} />
      <Panel className="flex min-h-0 flex-1 flex-col">
        <DataGrid
          label="Zips"
          columns={columns}
          rows={imports}
          rowKey={({ id }) => String(id)}
          onOpen={({ id }) => show(id)}
          empty={
            <Empty title="No zip yet">Put the first one above; every row is shown before anything is written.</Empty>
          }
        />
      </Panel>
    </Page>
  );
}
