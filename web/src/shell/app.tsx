import { QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, Navigate, RouterProvider, useLocation, useParams } from 'react-router';
import { Toaster } from 'sonner';
import { WelcomePage } from '../people/accounts/welcome-page';
import { SignInPage } from '../people/sign-in-page';
import { ToNextSheet } from '../posting/to-next-sheet';
import { ToSheet } from '../posting/to-sheet';
import { FirstStart } from '../schools/first-start';
import { NoPage, PageFace } from './awaited-page';
import { BrokenPage } from './broken-page';
import { Frame } from './frame';
import { pages } from './pages';
import { Skeleton } from '../ui/skeleton';
import { mayInAll } from './access';
import { mayGo, today } from './places';
import { useOwnView } from '../ui/own-view';
import { usePreferences } from './preferences';
import { createQueryClient } from './query-client';
import { useSchools, useScope, useTermLine } from './scope';
import { useSession } from './session';

/** How long a notice, and with it the way to undo, stays while the pointer is elsewhere. */
const noticeMilliseconds = 10_000;

const client = createQueryClient();

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  { path: '/welcome/:token', element: <WelcomePage /> },
  { path: '/', element: <ToSchool /> },
  { path: '/school/:schoolId', element: <ToPeriod /> },
  { path: '/school/:schoolId/to/*', element: <ToPeriod /> },
  {
    path: '/school/:schoolId/period/:periodId',
    element: <Frame />,
    errorElement: <BrokenPage />,
    children: [
      // A screen that a fault stops leaves the frame around it as it is.
      {
        errorElement: <BrokenPage />,
        HydrateFallback: Skeleton,
        children: [
          { index: true, element: <ToFirstPlace /> },
          { path: 'grade-sheets/:sectionId', element: <ToSheet /> },
          ...pages,
          { path: '*', element: <NoPage /> },
        ],
      },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);

export function App() {
  // Words in which names, days and figures are written stand everywhere: another way to write them begins the screen anew.
  const written = useOwnView(({ locale, names, peopleOrder }) => `${locale} ${names} ${peopleOrder}`);
  return (
    <QueryClientProvider client={client}>
      <RouterProvider key={written} router={router} />
      <Toaster position="bottom-right" toastOptions={{ className: 'font-sans!', duration: noticeMilliseconds }} />
    </QueryClientProvider>
  );
}

/** The school last worked on, else the first. */
function ToSchool() {
  const opened = useSession();
  const kept = useSchools();
  const [session, schools] = [opened.data, kept.data];
  const last = usePreferences((state) => state.schoolId);
  if (session === null) return <Navigate to="/sign-in" replace />;
  if (schools?.length === 0)
    return session && mayInAll(session.person, 'change-shared-set-up') ? (
      <FirstStart />
    ) : (
      <p className="p-10">There is no school yet.</p>
    );
  const school = schools?.find(({ id }) => id === last) ?? schools?.[0];
  return school ? <Navigate to={`/school/${school.id}`} replace /> : <PageFace queries={[opened, kept]} />;
}

/** The period whose window is open, else the one that today lies in; and there the place that the address names. */
function ToPeriod() {
  const { schoolId: school, '*': place = '' } = useParams();
  const { search } = useLocation();
  const schoolId = Number(school);
  const line = useTermLine(schoolId);
  if (!line.data) return <PageFace queries={[line]} />;
  return <Navigate to={`/school/${schoolId}/period/${line.data.suggestedPeriodId}/${place}${search}`} replace />;
}

/** Who reads the set-up begins with today, a teacher with the next sheet that is not done. */
function ToFirstPlace() {
  const { data: session } = useSession();
  const { schoolId } = useScope();
  if (!session) return null;
  return mayGo(session.person, schoolId, today) ? <Navigate to="today" replace /> : <ToNextSheet />;
}
