import { Link, useSearchParams } from 'react-router';
import type { MatchesReply } from '#contract/matching';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Choice, ViewSwitch } from '../ui/field';
import { showInstant } from '../ui/format';
import { Page } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { ClassesDesk } from './classes-desk';
import { MatchesHeadline } from './matches-headline';
import { NamesDesk } from './names-desk';
import { PeopleDesk } from './people-desk';
import { useMatches, usePlatforms } from './queries';
import { SectionsTable } from './sections-table';
import { TakeAbove } from './take-above';
import { views, type View } from './views';
import { WeightsDesk } from './weights-desk';

/** Classes, groups, totals, letters and people of a platform joined to ours. */
export function MatchesPage() {
  const { schoolId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const connected = usePlatforms(schoolId);
  const { data: platforms } = connected;
  const asked = Number(search.get('platform'));
  const platformId = platforms?.find(({ id }) => id === asked)?.id ?? platforms?.[0]?.id;
  const matches = useMatches(platformId);
  const { data: reply } = matches;
  if (platforms?.length === 0)
    return (
      <Page headline={<>No learning platform is connected to this school, so there is nothing to join.</>}>
        <Panel>
          <Empty title="Nothing to join yet">
            <Link className="font-semibold text-eucalypt underline" to={path('platforms')}>
              Connect a platform
            </Link>{' '}
            first; its classes, groups and people are then listed here beside ours.
          </Empty>
        </Panel>
      </Page>
    );
  if (!reply || !platforms) return <PageFace queries={[connected, matches]} />;
  const set = (changes: Record<string, string>) =>
    setSearch((before) => searchWith(before, { class: null, ...changes }));
  const view = views.map(([name]) => name).find((name) => name === search.get('view')) ?? 'class';
  const onView = (chosen: View) => set({ view: chosen });
  return (
    <Page
      headline={<MatchesHeadline reply={reply} onView={onView} />}
      actions={
        <>
          <ViewSwitch label="View" views={views} chosen={view} onChoose={onView} />
          <TakeAbove reply={reply} view={view} />
        </>
      }
      aside={
        <>
          {platforms.length > 1 && (
            <Choice
              label="Platform"
              value={String(reply.platform.id)}
              onChange={({ target }) => set({ platform: target.value })}
            >
              {platforms.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Choice>
          )}{' '}
          {reply.platform.readAt && <>read {showInstant(reply.platform.readAt)}</>}
        </>
      }
    >
      <Desk reply={reply} view={view} classId={Number(search.get('class')) || null} onView={set} />
    </Page>
  );
}

interface DeskProps {
  readonly reply: MatchesReply;
  readonly view: View;
  readonly classId: number | null;
  readonly onView: (search: Record<string, string>) => void;
}

function Desk({ reply, view, classId, onView }: DeskProps) {
  const openClass = (id: number) => onView({ view: 'group', class: String(id) });
  if (view === 'class') return <ClassesDesk reply={reply} onOpen={openClass} />;
  if (view === 'person') return <PeopleDesk reply={reply} />;
  if (view === 'weights') return <WeightsDesk platform={reply.platform} />;
  if (view === 'table') return <SectionsTable reply={reply} onOpen={openClass} />;
  const shown = view === 'letter' ? null : classId;
  const title = reply.classes.find(({ id }) => id === shown)?.title;
  return (
    <>
      {title && (
        <p className="text-[13px]">
          Only <b>{title}</b>; a decision here applies to this class only.{' '}
          <button type="button" className="font-semibold text-eucalypt underline" onClick={() => onView({ view })}>
            Show all classes
          </button>
        </p>
      )}
      <NamesDesk key={`${view} ${shown}`} reply={reply} kind={view} classId={shown} />
    </>
  );
}
