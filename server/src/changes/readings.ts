import { Injectable } from '@nestjs/common';
import type { ReadingReply } from '#contract/changes';
import { Transactions, type Actor } from '#server/platform';
import { ChangeLog } from './change-log.js';
import { LogRepository, readingPrefix } from './log.repository.js';

/** A page that is open asks again and again; within so many milliseconds it is one reading. */
const oneReading = 15 * 60_000;

/** As many as are told of at once; the log has all. */
const mostTold = 1000;

/** Whose record was read, by whom, when, and which part of it. */
@Injectable()
export class Readings {
  constructor(
    private readonly transactions: Transactions,
    private readonly log: ChangeLog,
    private readonly entries: LogRepository,
  ) {}

  /** Remembers that somebody read a part of a student's record. */
  async note(actor: Actor, studentId: number, part: string, student: object): Promise<void> {
    const event = { action: `${readingPrefix}${part}`, thing: thingOf(studentId), after: student };
    await this.transactions.run((queries) => this.log.noteUnlessJust(queries, actor, event, oneReading));
  }

  /** The newest first. */
  async of(studentId: number): Promise<ReadingReply[]> {
    const rows = await this.entries.readingsOf(this.transactions.reading, thingOf(studentId), mostTold);
    return rows.map(({ id, at, actor, action }) => ({
      id,
      at: at.toISOString(),
      actor,
      part: action.slice(readingPrefix.length),
    }));
  }
}

/** As a file has them. */
export function rowsOfReadings(readings: readonly ReadingReply[]): string[][] {
  return [['When', 'Who', 'What was read'], ...readings.map(({ at, actor, part }) => [at, actor, part])];
}

const thingOf = (studentId: number) => `student ${studentId}`;
