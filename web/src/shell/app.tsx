import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, Navigate, RouterProvider, useParams } from 'react-router';
import { Toaster } from 'sonner';
import { FindingsPage } from '../audit/findings-page';
import { CalculationPage } from '../calculation/calculation-page';
import { GradeBookPage } from '../calculation/grade-book-page';
import { CalendarPage } from '../calendar/calendar-page';
import { LogPage } from '../changes/log-page';
import { CoursesPage } from '../courses/courses-page';
import { SetUpPage } from '../set-up/set-up-page';
import { SignInPage } from '../people/sign-in-page';
import { GradeSheetPage } from '../posting/grade-sheet-page';
import { SheetsPage } from '../posting/sheets-page';
import { ToNextSheet } from '../posting/to-next-sheet';
import { ReportItemsPage } from '../report-items/report-items-page';
import { ScalesPage } from '../scales/scales-page';
import { TodayPage } from '../today/today-page';
import { ExchangePage } from '../exchange/exchange-page';
import { FirstStart } from '../exchange/first-start';
import { OutboxPage } from '../mail/outbox-page';
import { MatchesPage } from '../matching/matches-page';
import { PlatformsPage } from '../matching/platforms-page';
import { FilePage } from '../transfer/file-page';
import { FilesPage } from '../transfer/files-page';
import { RunPage } from '../transfer/run-page';
import { RunsPage } from '../transfer/runs-page';
import { SealPage } from '../transcripts/seal-page';
import { StudentsPage } from '../transcripts/students-page';
import { TranscriptPage } from '../transcripts/transcript-page';
import { ProblemError } from './api';
import { BrokenPage } from './broken-page';
import { Frame } from './frame';
import { usePreferences } from './preferences';
import { useSchools, useTermLine } from './scope';
import { useSession } from './session';

/** How long a notice, and with it the way to undo, stays while the pointer is elsewhere. */
const noticeMilliseconds = 10_000;

const client = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 5_000, retry: (count, error) => !(error instanceof ProblemError) && count < 2 },
  },
});

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  { path: '/', element: <ToSchool /> },
  { path: '/school/:schoolId', element: <ToPeriod /> },
  {
    path: '/school/:schoolId/period/:periodId',
    element: <Frame />,
    errorElement: <BrokenPage />,
    children: [
      { index: true, element: <ToFirstPlace /> },
      { path: 'today', element: <TodayPage /> },
      { path: 'scales', element: <ScalesPage /> },
      { path: 'calendar', element: <CalendarPage /> },
      { path: 'report-items', element: <ReportItemsPage /> },
      { path: 'courses', element: <CoursesPage /> },
      { path: 'calculation', element: <CalculationPage /> },
      { path: 'set-up', element: <SetUpPage /> },
      { path: 'platforms', element: <PlatformsPage /> },
      { path: 'matches', element: <MatchesPage /> },
      { path: 'exchange', element: <ExchangePage /> },
      { path: 'log', element: <LogPage /> },
      { path: 'outbox', element: <OutboxPage /> },
      { path: 'runs', element: <RunsPage /> },
      { path: 'runs/:runId', element: <RunPage /> },
      { path: 'files', element: <FilesPage /> },
      { path: 'files/:fileId', element: <FilePage /> },
      { path: 'grade-sheets', element: <SheetsPage /> },
      { path: 'grade-sheets/:sectionId/:itemId', element: <GradeSheetPage /> },
      { path: 'grade-books/:sectionId', element: <GradeBookPage /> },
      { path: 'findings', element: <FindingsPage /> },
      { path: 'seal', element: <SealPage /> },
      { path: 'students', element: <StudentsPage /> },
      { path: 'students/:studentId', element: <TranscriptPage /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);

export function App() {
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
      <Toaster position="bottom-right" toastOptions={{ className: 'font-sans!', duration: noticeMilliseconds }} />
    </QueryClientProvider>
  );
}

/** The school last worked on, else the first. */
function ToSchool() {
  const { data: session } = useSession();
  const { data: schools } = useSchools();
  const last = usePreferences((state) => state.schoolId);
  if (session === null) return <Navigate to="/sign-in" replace />;
  if (schools?.length === 0)
    return session?.person.role === 'registrar' ? <FirstStart /> : <p className="p-10">There is no school yet.</p>;
  const school = schools?.find(({ id }) => id === last) ?? schools?.[0];
  return school ? <Navigate to={`/school/${school.id}`} replace /> : null;
}

/** The period whose window is open, else the one that today lies in. */
function ToPeriod() {
  const schoolId = Number(useParams()['schoolId']);
  const { data: termLine, isError } = useTermLine(schoolId);
  if (isError) return <Navigate to="/" replace />;
  return termLine ? <Navigate to={`/school/${schoolId}/period/${termLine.suggestedPeriodId}`} replace /> : null;
}

/** A registrar begins with today, a teacher with the next sheet that is not done. */
function ToFirstPlace() {
  const { data: session } = useSession();
  if (!session) return null;
  return session.person.role === 'registrar' ? <Navigate to="today" replace /> : <ToNextSheet />;
}
