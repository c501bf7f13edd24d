import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import type { MailReply } from '#contract/mail';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { api } from '../shell/api';
import { useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { DataGrid, type GridColumn } from '../ui/grid/data-grid';
import { Drawer } from '../ui/drawer';
import { showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';

const columns: GridColumn<MailReply>[] = [
  {
    id: 'at',
    header: 'Written',
    width: '160px',
    sortBy: ({ writtenAt }) => writtenAt,
    cell: ({ writtenAt }) => showInstant(writtenAt),
  },
  {
    id: 'to',
    header: 'To',
    width: '190px',
    sortBy: ({ to }) => to,
    cell: ({ to, address }) => (
      <b className="font-semibold" title={address}>
        {to}
      </b>
    ),
  },
  { id: 'subject', header: 'Subject', sortBy: ({ subject }) => subject, cell: ({ subject }) => subject },
  { id: 'by', header: 'By', width: '150px', sortBy: ({ writtenBy }) => writtenBy, cell: ({ writtenBy }) => writtenBy },
];

/** The letters that Wombat wrote for the school; each is a file too. */
export function OutboxPage() {
  const { schoolId } = useScope();
  const [search, setSearch] = useSearchParams();
  const outbox = useQuery({
    queryKey: ['mails', schoolId],
    queryFn: () => api.get<MailReply[]>(`/mails?school=${schoolId}`),
  });
  const { data: mails } = outbox;
  if (!mails) return <PageFace queries={[outbox]} />;
  const chosen = mails.find(({ id }) => id === Number(search.get('letter')));
  return (
    <div className="flex min-h-0 flex-1">
      <Page
        headline={
          mails.length === 0 ? (
            <>No message was written for this school yet.</>
          ) : (
            <>
              <Strong>{counted(mails.length, 'message')}</Strong> {agreeing(mails.length, 'is')} in the outbox, the last
              from {showInstant(mails[0]!.writtenAt)}.
            </>
          )
        }
        below="Messages are kept here and as .eml files in the folder outbox beside the data; no mail server sends them."
      >
        <Panel className="flex min-h-0 flex-1 flex-col">
          <DataGrid
            label="Messages"
            columns={columns}
            rows={mails}
            rowKey={({ id }) => String(id)}
            chosenKey={chosen ? String(chosen.id) : null}
            onReach={({ id }) => setSearch((before) => searchWith(before, { letter: String(id) }))}
            empty={<Empty title="No message yet">Messages to teachers about what a run skipped appear here.</Empty>}
          />
        </Panel>
      </Page>
      {chosen && (
        <Drawer title={`To ${chosen.to}`} onClose={() => setSearch((before) => searchWith(before, { letter: null }))}>
          <div className="space-y-3 text-[13px]">
            <p className="text-quiet">{chosen.address}</p>
            <h3 className="text-[16px] font-bold">{chosen.subject}</h3>
            <p className="whitespace-pre-wrap">{chosen.body}</p>
            <a className="font-semibold text-estuary underline" href={`/api/mails/${chosen.id}/message`}>
              Save as a file
            </a>
          </div>
        </Drawer>
      )}
    </div>
  );
}
