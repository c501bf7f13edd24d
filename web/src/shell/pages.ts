import type { ComponentType } from 'react';
import type { RouteObject } from 'react-router';

/** A page whose script is loaded when it is first gone to. */
function page<Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) {
  return async () => ({ Component: (await load())[name] });
}

/** Every page of a school and a period, by its address below them. */
export const pages = [
  { path: 'today', lazy: page(() => import('../today/today-page'), 'TodayPage') },
  { path: 'scales', lazy: page(() => import('../scales/scales-page'), 'ScalesPage') },
  { path: 'calendar', lazy: page(() => import('../calendar/calendar-page'), 'CalendarPage') },
  { path: 'report-items', lazy: page(() => import('../report-items/report-items-page'), 'ReportItemsPage') },
  { path: 'new-school', lazy: page(() => import('../schools/new-school-page'), 'NewSchoolPage') },
  { path: 'people', lazy: page(() => import('../people/people-page'), 'PeoplePage') },
  { path: 'courses', lazy: page(() => import('../courses/courses-page'), 'CoursesPage') },
  { path: 'sections', lazy: page(() => import('../sections/sections-page'), 'SectionsPage') },
  { path: 'enrollments', lazy: page(() => import('../sections/enrollments-page'), 'EnrollmentsPage') },
  { path: 'calculation', lazy: page(() => import('../calculation/calculation-page'), 'CalculationPage') },
  { path: 'set-up', lazy: page(() => import('../set-up/set-up-page'), 'SetUpPage') },
  { path: 'platforms', lazy: page(() => import('../platforms/platforms-page'), 'PlatformsPage') },
  { path: 'matches', lazy: page(() => import('../matching/matches-page'), 'MatchesPage') },
  { path: 'exchange', lazy: page(() => import('../exchange/exchange-page'), 'ExchangePage') },
  { path: 'accounts', lazy: page(() => import('../people/accounts/accounts-page'), 'AccountsPage') },
  { path: 'log', lazy: page(() => import('../changes/log-page'), 'LogPage') },
  { path: 'outbox', lazy: page(() => import('../mail/outbox-page'), 'OutboxPage') },
  { path: 'runs', lazy: page(() => import('../runs/runs-page'), 'RunsPage') },
  { path: 'runs/:runId', lazy: page(() => import('../runs/run-page'), 'RunPage') },
  { path: 'files', lazy: page(() => import('../files/files-page'), 'FilesPage') },
  { path: 'files/:fileId', lazy: page(() => import('../files/file-page'), 'FilePage') },
  { path: 'receipts', lazy: page(() => import('../posting/receipts-page'), 'ReceiptsPage') },
  { path: 'attendance', lazy: page(() => import('../attendance/attendance-page'), 'AttendancePage') },
  {
    path: 'attendance/:sectionId',
    lazy: page(() => import('../attendance/register-page'), 'RegisterPage'),
  },
  { path: 'board', lazy: page(() => import('../board/board-page'), 'BoardPage') },
  { path: 'grade-sheets', lazy: page(() => import('../posting/sheets-page'), 'SheetsPage') },
  {
    path: 'grade-sheets/:sectionId/:itemId',
    lazy: page(() => import('../posting/grade-sheet-page'), 'GradeSheetPage'),
  },
  {
    path: 'standards/:sectionId',
    lazy: page(() => import('../posting/standards-page'), 'StandardsPage'),
  },
  {
    path: 'grade-books/:sectionId',
    lazy: page(() => import('../calculation/book/grade-book-page'), 'GradeBookPage'),
  },
  { path: 'findings/rules', lazy: page(() => import('../audit/rules/rules-page'), 'RulesPage') },
  { path: 'findings', lazy: page(() => import('../audit/findings-page'), 'FindingsPage') },
  { path: 'seal', lazy: page(() => import('../transcripts/seal-page'), 'SealPage') },
  { path: 'students', lazy: page(() => import('../transcripts/students-page'), 'StudentsPage') },
  {
    path: 'students/:studentId/report-card',
    lazy: page(() => import('../report-cards/report-card-page'), 'ReportCardPage'),
  },
  { path: 'students/:studentId', lazy: page(() => import('../transcripts/transcript-page'), 'TranscriptPage') },
] as const satisfies readonly RouteObject[];
