import type { Role } from './roles.js';

/**
 * What an action is done to: one's own account and view, a section with its grades and scores, something of one school, or
 * something that all schools share.
 */
export type Concern = 'self' | 'section' | 'school' | 'district';

export interface ActionFacts {
  /** What it is to do it, for somebody who reads the table: "Change scales, …". */
  readonly means: string;
  readonly concerns: Concern;
  /**
   * Who may, and of which: `own` are the sections that somebody teaches, `held` is everything where the role is held. What all
   * schools share is within reach only of who holds the role for the whole district. Who is not named may not.
   */
  readonly allows: Readonly<Partial<Record<Role, 'own' | 'held'>>>;
}

const everybody = {
  registrar: 'held',
  'grading-administrator': 'held',
  teacher: 'held',
  approver: 'held',
  viewer: 'held',
} as const;
const readers = { registrar: 'held', 'grading-administrator': 'held', approver: 'held', viewer: 'held' } as const;
const readersAndTeacher = { ...readers, teacher: 'own' } as const;
const administrators = { registrar: 'held', 'grading-administrator': 'held' } as const;

/**
 * Who may do what: the one table from which the routes, the interface and docs/access.md come.
 * Source: the roles of a registrar's office; common practice.
 */
export const accessMatrix = {
  'use-own-account': {
    means: 'Sign in and out, change one’s own password and view, look back on and undo one’s own changes, search',
    concerns: 'self',
    allows: everybody,
  },
  'see-school': {
    means: 'See a school’s name and its periods',
    concerns: 'school',
    allows: everybody,
  },
  'read-set-up': {
    means: 'Read scales, codes, calendar, report items, courses, sections, calculation and GPA settings',
    concerns: 'school',
    allows: readers,
  },
  'change-set-up': {
    means: 'Change scales, calendar, report items, courses, sections and calculation, and preview such a change',
    concerns: 'school',
    allows: administrators,
  },
  'change-shared-set-up': {
    means: 'Change codes, GPA settings and the scales that all schools share; open a school',
    concerns: 'district',
    allows: administrators,
  },
  'read-people': {
    means: 'Read students, staff and enrollments',
    concerns: 'school',
    allows: readers,
  },
  'change-people': {
    means: 'Change, merge and move students, staff and enrollments',
    concerns: 'school',
    allows: administrators,
  },
  'manage-access': {
    means: 'Invite people, give and take roles, deactivate accounts',
    concerns: 'school',
    allows: { registrar: 'held' },
  },
  'see-as': {
    means: 'See what somebody else sees, and change nothing meanwhile',
    concerns: 'school',
    allows: { registrar: 'held' },
  },
  'read-map': {
    means: 'Read platforms, matches, runs and imported files',
    concerns: 'school',
    allows: readers,
  },
  map: {
    means: 'Connect platforms, decide matches, carry out and undo runs, import files',
    concerns: 'school',
    allows: administrators,
  },
  exchange: {
    means: 'Import and export the district as OneRoster files',
    concerns: 'district',
    allows: administrators,
  },
  'read-grades': {
    means: 'Open grade sheets and grade books, with their workings and history',
    concerns: 'section',
    allows: readersAndTeacher,
  },
  'post-grades': {
    means: 'Post grades and comments; a registrar does so on behalf of the teacher',
    concerns: 'section',
    allows: { registrar: 'held', teacher: 'own' },
  },
  'post-outside-window': {
    means: 'Post after a window has closed or before it opens, where the window leaves that to anybody',
    concerns: 'section',
    allows: { registrar: 'held' },
  },
  score: {
    means: 'Enter scores and assignments in a grade book',
    concerns: 'section',
    allows: { teacher: 'own' },
  },
  'change-categories': {
    means: 'Change the categories of a grade book',
    concerns: 'section',
    allows: { ...administrators, teacher: 'own' },
  },
  'read-outbox': {
    means: 'Read the messages that were written',
    concerns: 'school',
    allows: { registrar: 'held' },
  },
  'read-findings': {
    means: 'Read audits and their findings',
    concerns: 'school',
    allows: readers,
  },
  audit: {
    means: 'Run an audit',
    concerns: 'school',
    allows: administrators,
  },
  'read-transcripts': {
    means: 'Read students’ transcripts and what is ready to be sealed',
    concerns: 'school',
    allows: readers,
  },
  'see-readers': {
    means: 'See and export who read a student’s record, when, and which part',
    concerns: 'school',
    allows: administrators,
  },
  seal: {
    means: 'Seal a period',
    concerns: 'school',
    allows: { registrar: 'held' },
  },
  'read-log': {
    means: 'Read, export and check the log of all that was done',
    concerns: 'district',
    allows: { registrar: 'held' },
  },
} as const satisfies Readonly<Record<string, ActionFacts>>;

export type Action = keyof typeof accessMatrix;
export const actions = Object.keys(accessMatrix) as Action[];
