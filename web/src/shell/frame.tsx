import { ChevronDown, Menu, Search } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useCallback, useEffect, useState } from 'react';
import { Navigate, Outlet, useLocation, useNavigate } from 'react-router';
import type { PersonReply } from '#contract/people';
import { RunningCalculation } from '../calculation/recalculation-note';
import { RecentChanges } from '../changes/recent-changes';
import { RunningZip } from '../exchange/running-zip';
import { RunningFile } from '../files/running-file';
import { HelpDialog } from '../help/help-dialog';
import { RoleStepsStrip } from '../help/role-steps-strip';
import { SignInAgain } from '../people/sign-in-again';
import { RunningRun } from '../runs/running-run';
import { SchoolNamesDialog } from '../schools/school-names-dialog';
import { FirstStepsStrip } from '../set-up/first-steps-strip';
import { Drawer } from '../ui/drawer';
import { useKeys } from '../ui/use-keys';
import { closeDrawer, useDrawer } from './drawer-store';
import { PageFace } from './awaited-page';
import { UnkeptBanner } from './unkept-banner';
import { UnreachableBanner } from './unreachable-banner';
import { PersonMenu } from './person-menu';
import { usePreferences } from './preferences';
import { mayIn, mayInAll, useMay } from './access';
import { SeeingBanner } from './seeing-banner';
import { ViewOnlyNote } from './view-only-note';
import { useScope, useSchools, useTermLine } from './scope';
import { SearchDialog } from './search-dialog';
import { useSession } from './session';
import { SessionPauseBanner } from './session-pause-banner';
import { useSessionState } from './session-state';
import { StepPath } from './step-path';
import { TermLine } from './term-line';

/** What stands around every screen. */
export function Frame() {
  const opened = useSession();
  const { data: session } = opened;
  const { schoolId, periodId } = useScope();
  const line = useTermLine(schoolId);
  const may = useMay();
  const { data: termLine } = line;
  const shown = useDrawer((state) => state.shown);
  const [isSearching, setSearching] = useState(false);
  const [showsHelp, setShowsHelp] = useState(false);
  useKeys([
    { key: '/', says: 'search over everything', act: () => setSearching(true) },
    { key: '?', says: 'help: keys, words and first steps', act: () => setShowsHelp(true) },
  ]);
  useEffect(() => {
    usePreferences.setState({ schoolId });
  }, [schoolId]);
  useEffect(closeDrawer, [periodId]);
  const { pathname } = useLocation();
  // On a narrow screen, and on a full one, the places are open until one is gone to.
  const [placesOpenAt, setPlacesOpenAt] = useState<string | undefined>();
  const showsPlaces = placesOpenAt === pathname;
  const openSearch = useCallback(() => setSearching(true), []);
  if (session === null) return <ToSignIn />;
  if (!session) return <PageFace queries={[opened]} />;
  const period = termLine?.periods.find(({ id }) => id === periodId);
  if (termLine && !period) return <Navigate to={`/school/${schoolId}/period/${termLine.suggestedPeriodId}`} replace />;
  const isElsewhere = period !== undefined && termLine !== undefined && termLine.suggestedPeriodId !== periodId;
  return (
    <div className="flex h-dvh flex-col">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-surface focus:p-2">
        Skip to content
      </a>
      <header className="flex h-[72px] shrink-0 border-b-[3px] border-eucalypt bg-surface max-[860px]:h-14">
        <button
          type="button"
          aria-label="Places"
          aria-expanded={showsPlaces}
          onClick={() => setPlacesOpenAt(showsPlaces ? undefined : pathname)}
          className="hidden w-12 shrink-0 place-items-center hover:bg-eucalypt-soft full-screen:grid max-[860px]:grid"
        >
          <Menu size={18} aria-hidden />
        </button>
        <SchoolPicker person={session.person} />
        {termLine ? <TermLine termLine={termLine} /> : <div className="flex-1" />}
        <div className="ml-auto flex shrink-0 items-center gap-2.5 px-4 max-[860px]:gap-1 max-[860px]:px-2">
          {may('read-map') && (
            <>
              <RunningFile />
              {may('exchange') && <RunningZip />}
              <RunningRun />
              <RunningCalculation />
            </>
          )}
          <button
            type="button"
            onClick={openSearch}
            className="flex h-8 w-[150px] items-center gap-2 rounded-md border border-hairline px-2.5 text-quiet hover:border-control max-[860px]:w-8"
          >
            <Search size={14} aria-hidden className="shrink-0" />
            <span className="max-[860px]:sr-only">Find</span>
            <kbd className="figures ml-auto rounded border border-hairline px-1.5 text-[11px] max-[860px]:hidden">
              /
            </kbd>
          </button>
          <RecentChanges />
          <PersonMenu person={session.person} />
        </div>
      </header>
      <div className="flex min-h-0 flex-1">
        <StepPath person={session.person} isOpen={showsPlaces} />
        <main id="page" className="relative flex min-w-0 flex-1 flex-col overflow-auto">
          {isElsewhere && <div aria-hidden className="hatched absolute inset-x-0 top-0 h-1.5" />}
          <SessionPauseBanner />
          <UnreachableBanner />
          <UnkeptBanner />
          <SeeingBanner />
          <ViewOnlyNote />
          {may('change-set-up') && <FirstStepsStrip />}
          <RoleStepsStrip person={session.person} />
          {termLine ? <Outlet /> : <PageFace queries={[line]} />}
        </main>
        {shown && (
          <Drawer title={shown.title} onClose={closeDrawer}>
            {shown.content}
          </Drawer>
        )}
      </div>
      <SearchDialog isOpen={isSearching} onOpenChange={setSearching} person={session.person} />
      <SignInAgain person={session.person} />
      <HelpDialog person={session.person} isOpen={showsHelp} onOpenChange={setShowsHelp} />
    </div>
  );
}

/** Whoever is sent there comes back; whoever left does not want to. */
function ToSignIn() {
  const hasLeft = useSessionState(({ state }) => state === 'left');
  const { pathname, search } = useLocation();
  return <Navigate to="/sign-in" replace state={hasLeft ? null : { from: pathname + search }} />;
}

function SchoolPicker({ person }: { person: PersonReply }) {
  const { schoolId, periodId } = useScope();
  const { data: schools = [] } = useSchools();
  const { data: session } = useSession();
  const navigate = useNavigate();
  const school = schools.find(({ id }) => id === schoolId);
  const [isRenaming, setRenaming] = useState(false);
  return (
    <>
      {isRenaming && <SchoolNamesDialog schoolId={schoolId} onClose={() => setRenaming(false)} />}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="flex w-[196px] shrink-0 items-center gap-3 border-r border-hairline px-4 text-left max-[860px]:w-auto max-[860px]:min-w-0 max-[860px]:shrink max-[860px]:px-2">
          <img src="/mark.svg" alt="" width={28} height={28} className="max-[860px]:hidden" />
          <span className="min-w-0">
            <span className="block truncate text-[15px] font-bold">{school?.shortName ?? ' '}</span>
            <span className="flex items-center gap-1 text-[12px] text-quiet">
              {mayIn(person, schoolId, 'read-set-up') ? (session?.district ?? 'all schools') : 'your sections'}{' '}
              <ChevronDown size={12} aria-label="choose a school" />
            </span>
          </span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-50 min-w-[240px] rounded-md border border-hairline bg-surface p-1 shadow-float"
          >
            {schools.map(({ id, name }) => (
              <DropdownMenu.Item
                key={id}
                onSelect={() => void navigate(`/school/${id}`)}
                className="rounded px-3 py-1.5 outline-none data-highlighted:bg-eucalypt-soft"
              >
                {name}
              </DropdownMenu.Item>
            ))}
            {mayInAll(person, 'change-shared-set-up') && (
              <DropdownMenu.Item
                onSelect={() => setRenaming(true)}
                className="mt-1 border-t border-hairline px-3 py-1.5 text-eucalypt outline-none data-highlighted:bg-eucalypt-soft"
              >
                Rename…
              </DropdownMenu.Item>
            )}
            {mayInAll(person, 'change-shared-set-up') && (
              <DropdownMenu.Item
                onSelect={() => void navigate(`/school/${schoolId}/period/${periodId}/new-school`)}
                className="px-3 py-1.5 text-eucalypt outline-none data-highlighted:bg-eucalypt-soft"
              >
                New school…
              </DropdownMenu.Item>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
