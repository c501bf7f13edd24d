import { readScore, type ScoreFlag } from '#core/calculation';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import {
  scoreFaultSentence,
  scoreKey,
  type AssignmentReply,
  type BookReply,
  type ScoreChangeBody,
} from '#contract/calculation';
import { createDraftStore } from '../../shell/draft-store';
import type { ScoreFacts } from './book-view';
import { flagWords } from '../words';

/** What is typed into a cell, and the version of the score that it was typed over; 0 where there was none. */
export interface ScoreDraft {
  readonly text: string;
  readonly version: number;
}

export type ScoreDrafts = Readonly<Record<string, ScoreDraft>>;

/** By section and period. Each cell bears the version it was typed over, so the draft as a whole is based on nothing. */
export const scoreDrafts = createDraftStore<ScoreDrafts, null>('scores');

export const noScoreDrafts: ScoreDrafts = {};

/** Drafts read: what the calculation takes of them, what would be saved, and what is wrong. */
export interface ReadDrafts {
  readonly facts: Readonly<Record<string, ScoreFacts>>;
  readonly changes: readonly ScoreChangeBody[];
  readonly faults: ReadonlyMap<string, string>;
  /** Drafts over a score that somebody else saved meanwhile. */
  readonly stale: readonly string[];
}

/** A score as it would be typed: "8.5", "missing", "18 late". */
export function textOfScore(score: ScoreFacts | undefined): string {
  const points = score?.points ? formatAtLeast(decimalOrThrow(score.points), 0) : '';
  return [points, score?.flag ? shortFlags[score.flag] : ''].filter(Boolean).join(' ');
}

/** The word of a flag that is typed; "collected only" is typed by its first word. */
const shortFlags: Record<ScoreFlag, string> = { ...flagWords, collected: 'collected' };

/** Drafts with some cells typed anew; one that is again what is saved is no draft any more. */
export function withScores(
  book: BookReply,
  drafts: ScoreDrafts,
  texts: readonly { readonly assignmentId: number; readonly enrollmentId: number; readonly text: string }[],
): ScoreDrafts {
  const saved = new Map(book.scores.map((score) => [scoreKey(score), score]));
  const assignments = new Map(book.assignments.map((assignment) => [assignment.id, assignment]));
  const next: Record<string, ScoreDraft> = { ...drafts };
  for (const { text, ...place } of texts) {
    const assignment = assignments.get(place.assignmentId);
    if (!assignment || !isGiven(assignment, place.enrollmentId)) continue;
    const key = scoreKey(place);
    const typed = tidied(text, assignment);
    if (typed === textOfScore(saved.get(key))) delete next[key];
    else next[key] = { text: typed, version: drafts[key]?.version ?? saved.get(key)?.version ?? 0 };
  }
  return next;
}

export function readDrafts(book: BookReply, drafts: ScoreDrafts): ReadDrafts {
  const assignments = new Map(book.assignments.map((assignment) => [String(assignment.id), assignment]));
  const versions = new Map(book.scores.map((score) => [scoreKey(score), score.version]));
  const facts: Record<string, ScoreFacts> = {};
  const changes: ScoreChangeBody[] = [];
  const faults = new Map<string, string>();
  for (const [key, { text, version }] of Object.entries(drafts)) {
    const [assignmentId, enrollmentId] = key.split('/') as [string, string];
    const assignment = assignments.get(assignmentId);
    if (!assignment) continue;
    const entry = readScore(text, limitOf(assignment));
    if (entry.kind === 'fault') {
      faults.set(key, scoreFaultSentence(entry.code, assignment.possible));
      continue;
    }
    const { points, flag } = entry.score;
    facts[key] = { points: points && formatAtLeast(points, 0), flag };
    changes.push({ assignmentId: assignment.id, enrollmentId: Number(enrollmentId), version, ...facts[key] });
  }
  const stale = Object.entries(drafts).filter(([key, { version }]) => (versions.get(key) ?? 0) !== version);
  return { facts, changes, faults, stale: stale.map(([key]) => key) };
}

/** What is typed for one student, by assignment. */
export interface StudentDrafts {
  readonly enrollmentId: number;
  readonly texts: Readonly<Record<number, string>>;
  readonly faults: Readonly<Record<number, string>>;
  readonly stale: readonly number[];
}

/** The drafts of a book by student; who has none is not among them. */
export function draftsByStudent(drafts: ScoreDrafts, { faults, stale }: ReadDrafts): StudentDrafts[] {
  const byStudent = new Map<
    number,
    { texts: Record<number, string>; faults: Record<number, string>; stale: number[] }
  >();
  for (const [key, { text }] of Object.entries(drafts)) {
    const [assignmentId, enrollmentId] = key.split('/').map(Number) as [number, number];
    const own = byStudent.get(enrollmentId) ?? { texts: {}, faults: {}, stale: [] };
    byStudent.set(enrollmentId, own);
    own.texts[assignmentId] = text;
    if (faults.has(key)) own.faults[assignmentId] = faults.get(key)!;
    if (stale.includes(key)) own.stale.push(assignmentId);
  }
  return [...byStudent].map(([enrollmentId, own]) => ({ enrollmentId, ...own }));
}

/** The drafts after a save: what was sent goes, what was typed since stays, over the versions saved. */
export function withoutSent(book: BookReply, drafts: ScoreDrafts, sent: ScoreDrafts): ScoreDrafts {
  const versions = new Map(book.scores.map((score) => [scoreKey(score), score.version]));
  return Object.fromEntries(
    Object.entries(drafts)
      .filter(([key, { text }]) => sent[key]?.text !== text)
      .map(([key, draft]) => [key, key in sent ? { ...draft, version: versions.get(key) ?? 0 } : draft]),
  );
}

/** Lets drafts stand over what somebody else saved meanwhile. */
export function overTheirs(book: BookReply, drafts: ScoreDrafts): ScoreDrafts {
  const versions = new Map(book.scores.map((score) => [scoreKey(score), score.version]));
  return Object.fromEntries(
    Object.entries(drafts).map(([key, draft]) => [key, { ...draft, version: versions.get(key) ?? 0 }]),
  );
}

export function isGiven({ givenTo }: AssignmentReply, enrollmentId: number): boolean {
  return givenTo === null || givenTo.includes(enrollmentId);
}

/** What can be read is written out in full; what cannot stays as it was typed. */
function tidied(text: string, assignment: AssignmentReply): string {
  const entry = readScore(text, limitOf(assignment));
  if (entry.kind === 'fault') return text.trim();
  const { points, flag } = entry.score;
  return textOfScore({ points: points && formatAtLeast(points, 0), flag });
}

function limitOf({ possible, isExtra }: AssignmentReply) {
  return { possible: decimalOrThrow(possible), isExtra };
}
