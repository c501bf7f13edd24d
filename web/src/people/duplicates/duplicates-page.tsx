import { useSearchParams } from 'react-router';
import { listed } from '#contract/messages';
import type { DuplicateReply } from '#contract/people';
import { PageFace } from '../../shell/awaited-page';
import { searchWith } from '../../ui/address/search-with';
import { showCount } from '../../ui/format';
import { DataGrid, type GridColumn } from '../../ui/grid/data-grid';
import { Page, Strong } from '../../ui/page';
import { Empty, Panel } from '../../ui/panel';
import { factsOf, nameOf, reasonWords } from './duplicate-words';
import { MergeDrawer } from './merge-drawer';
import { useDuplicates } from './queries';

const keyOf = ({ one, other }: DuplicateReply) => `${one.id}-${other.id}`;

const columns: GridColumn<DuplicateReply>[] = [
  {
    id: 'name',
    header: 'Name',
    sortBy: ({ one }) => nameOf(one),
    cell: ({ one }) => <b className="font-semibold">{nameOf(one)}</b>,
  },
  {
    id: 'one',
    header: 'One record',
    width: '230px',
    findBy: ({ one, other }) => factsOf(one, other),
    cell: ({ one, other }) => factsOf(one, other),
  },
  {
    id: 'other',
    header: 'The other',
    width: '290px',
    findBy: ({ one, other }) => `${nameOf(other)} ${factsOf(other, one)}`,
    cell: ({ one, other }) =>
      nameOf(one) === nameOf(other) ? factsOf(other, one) : `${nameOf(other)}, ${factsOf(other, one)}`,
  },
  {
    id: 'why',
    header: 'Why',
    width: '250px',
    sortBy: ({ reasons }) => reasons.map((each) => reasonWords[each]).join(),
    cell: ({ reasons }) => listed(reasons.map((each) => reasonWords[each])),
  },
];

/** Records that may be of one person, and the way to make one of two. */
export function DuplicatesPage({ schoolId, viewSwitch }: { schoolId: number; viewSwitch: React.ReactNode }) {
  const found = useDuplicates(schoolId);
  const [search, setSearch] = useSearchParams();
  const { data: pairs } = found;
  if (!pairs) return <PageFace queries={[found]} />;
  const chosen = pairs.find((pair) => keyOf(pair) === search.get('pair'));
  const show = (pair: string | null) => setSearch((before) => searchWith(before, { pair }), { replace: true });
  return (
    <div className="flex min-h-0 flex-1">
      <Page
        headline={
          pairs.length === 0 ? (
            <>
              <Strong>No two records</Strong> look as if they were of one person.
            </>
          ) : (
            <>
              <Strong tone="warns">{showCount(pairs.length)}</Strong>{' '}
              {pairs.length === 1 ? 'pair of records' : 'pairs of records'} may be of one person.
            </>
          )
        }
        below="Twins and siblings look alike too: nothing is merged that you do not merge."
        aside={viewSwitch}
      >
        <Panel className="flex min-h-[300px] flex-1 flex-col">
          <DataGrid
            label="Records that may be of one person"
            columns={columns}
            rows={pairs}
            rowKey={keyOf}
            chosenKey={chosen ? keyOf(chosen) : null}
            onReach={(pair) => show(keyOf(pair))}
            empty={
              <Empty title="Nobody is listed twice">
                Records are compared by number, by day of birth, by address and by name, across all schools that you may
                read.
              </Empty>
            }
          />
        </Panel>
      </Page>
      {chosen && <MergeDrawer key={keyOf(chosen)} schoolId={schoolId} pair={chosen} onClose={() => show(null)} />}
    </div>
  );
}
