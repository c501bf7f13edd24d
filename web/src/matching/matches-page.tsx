import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { sureConfidence } from '#core/matching';
import type { MatchDecisionBody, MatchesReply } from '#contract/matching';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Choice, ViewSwitch } from '../ui/field';
import { plural, showInstant } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { ClassesDesk } from './classes-desk';
import { decisionsAbove } from './join-rows';
import { NamesDesk } from './names-desk';
import { PeopleDesk } from './people-desk';
import { useDecide, useMatches, usePlatforms } from './queries';
import { SectionsTable } from './sections-table';

const views = [
  ['class', 'Classes'],
  ['group', 'Groups'],
  ['total', 'Totals'],
  ['letter', 'Letters'],
  ['person', 'People'],
  ['table', 'All sections'],
] as const;
type View = (typeof views)[number][0];

/** Classes, groups, totals, letters and people of a platform joined to ours. */
export function MatchesPage() {
  const { schoolId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const { data: platforms } = usePlatforms(schoolId);
  const asked = Number(search.get('platform'));
  const platformId = platforms?.find(({ id }) => id === asked)?.id ?? platforms?.[0]?.id;
  const { data: reply } = useMatches(platformId);
  if (platforms?.length === 0)
    return (
      <Page headline={<>No learning platform is connected to this school, so there is nothing to join.</>}>
        <Panel>
          <Empty title="Nothing to join yet">
            <Link className="font-semibold text-eucalypt underline" to={path('platforms')}>
              Connect a platform
            </Link>{' '}
            first; its classes, groups and people then stand here beside ours.
          </Empty>
        </Panel>
      </Page>
    );
  if (!reply || !platforms) return null;
  const set = (changes: Record<string, string>) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      next.delete('class');
      for (const [key, value] of Object.entries(changes)) next.set(key, value);
      return next;
    });
  const view = views.map(([name]) => name).find((name) => name === search.get('view')) ?? 'class';
  const onView = (chosen: View) => set({ view: chosen });
  return (
    <Page
      headline={<Headline reply={reply} onView={onView} />}
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
  if (view === 'table') return <SectionsTable reply={reply} onOpen={openClass} />;
  const shown = view === 'letter' ? null : classId;
  const title = reply.classes.find(({ id }) => id === shown)?.title;
  return (
    <>
      {title && (
        <p className="text-[13px]">
          Only <b>{title}</b>; a decision here holds in this class alone.{' '}
          <button type="button" className="font-semibold text-eucalypt underline" onClick={() => onView({ view })}>
            Show all classes
          </button>
        </p>
      )}
      <NamesDesk key={`${view} ${shown}`} reply={reply} kind={view} classId={shown} />
    </>
  );
}

/** What is joined and what is not, with the figures leading to the view where it is decided. */
function Headline({
  reply: { platform, classes, names, people },
  onView,
}: {
  reply: MatchesReply;
  onView: (view: View) => void;
}) {
  const joined = classes.filter(({ state }) => state === 'joined').length;
  const openOf = (kind: View) =>
    names.filter((name) => name.kind === kind && name.state !== 'joined' && name.state !== 'ignored').length;
  const open: [View, number, string, string][] = [
    ['class', classes.filter(({ state }) => state !== 'joined' && state !== 'ignored').length, 'class', 'classes'],
    ['group', openOf('group'), 'group name', 'group names'],
    ['total', openOf('total'), 'total column', 'total columns'],
    ['letter', openOf('letter'), 'letter', 'letters'],
    ['person', people.filter(({ state }) => state !== 'joined' && state !== 'ignored').length, 'student', 'students'],
  ];
  const waiting = open.filter(([, count]) => count > 0);
  return (
    <>
      <Strong>{joined}</Strong> of {plural(classes.length, 'class', 'classes')} on {platform.name}{' '}
      {joined === 1 ? 'is' : 'are'} joined to our sections.{' '}
      {waiting.length === 0 ? (
        'Nothing waits for a decision.'
      ) : (
        <>
          Still to decide:{' '}
          {waiting.map(([view, count, one, many], at) => (
            <span key={view}>
              {at > 0 && (at === waiting.length - 1 ? ' and ' : ', ')}
              <FigureButton tone="warns" onClick={() => onView(view)}>
                {plural(count, one, many)}
              </FigureButton>
            </span>
          ))}
          .
        </>
      )}
    </>
  );
}

const lines = [95, 90, 80, 70, 50];

/** Takes all proposals of the view above a line that is chosen here, as one decision. */
function TakeAbove({ reply, view }: { reply: MatchesReply; view: View }) {
  const decide = useDecide(reply.platform.id);
  const [line, setLine] = useState(sureConfidence);
  const decisions = decisionsOfView(reply, view, line);
  if (decisionsOfView(reply, view, 0).length === 0) return null;
  const take = () => decide.mutate({ decisions, says: `${plural(decisions.length, 'proposal')} taken.` });
  return (
    <span className="flex items-center gap-2">
      <Button look="main" disabled={decide.isPending || decisions.length === 0} onClick={take}>
        Take {plural(decisions.length, 'proposal')}
      </Button>
      {view === 'person' ? (
        'with the same name and day of birth'
      ) : (
        <span>
          of{' '}
          <Choice label="Line" value={line} onChange={({ target }) => setLine(Number(target.value))}>
            {lines.map((each) => (
              <option key={each} value={each}>
                {each} %
              </option>
            ))}
          </Choice>{' '}
          and more
        </span>
      )}
    </span>
  );
}

function decisionsOfView({ classes, names, people }: MatchesReply, view: View, line: number): MatchDecisionBody[] {
  if (view === 'class')
    return classes.flatMap(({ id, state, best }) =>
      state === 'proposed' && best && best.confidence >= line ? [joining('class', id, best.sectionId)] : [],
    );
  if (view === 'person')
    return people.flatMap(({ id, state, match }) =>
      state === 'proposed' && match.state === 'proposed' && match.by === 'nameAndBirthDate'
        ? [joining('person', id, match.personId)]
        : [],
    );
  return decisionsAbove(
    line,
    names.filter(({ kind }) => kind === view),
  );
}

function joining(kind: 'class' | 'person', id: number, target: number): MatchDecisionBody {
  return { kind, ids: [id], decision: 'joined', target: String(target) };
}
