import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { may } from '#core/access';
import { differences } from '#core/changes';
import type { ChangedThingReply, ChangeReply } from '#contract/changes';
import { Refusal, Transactions, type Actor } from '#server/platform';
import { LogRepository, type LogRow } from './log.repository.js';
import { Readings } from './readings.js';
import { kindAndId } from './thing-name.js';
import { Things } from './things.js';

/** As many changes as somebody looks back on at once. */
const changesAtOnce = 50;

/** What was changed, change by change, and what of it can be undone. */
@Injectable()
export class HistoryService {
  constructor(
    private readonly transactions: Transactions,
    private readonly log: LogRepository,
    private readonly things: Things,
    private readonly readings: Readings,
  ) {}

  /** The newest changes that somebody made, newest first. */
  changesOf(actor: Actor): Promise<ChangeReply[]> {
    return this.changesWhere(actor, sql`actor_id = ${actor.personId}`);
  }

  /** The newest changes of a thing, by its kind and number. @throws Refusal not-found for who may not see it */
  async changesOfThing(actor: Actor, thing: string): Promise<ChangeReply[]> {
    if (!(await this.things.canSee(this.transactions.reading, actor, thing)))
      throw new Refusal('not-found', { what: 'thing', id: thing });
    const [kind, id] = kindAndId(thing);
    if (kind === 'person') await this.readings.note(actor, Number(id), 'history', {});
    return this.changesWhere(actor, sql`thing = ${thing}`);
  }

  private async changesWhere(actor: Actor, condition: SQL): Promise<ChangeReply[]> {
    return this.transactions.snapshot(async (queries) => {
      const changes = await this.log.newestChanges(queries, condition, changesAtOnce);
      const names = await this.things.namesOf(
        queries,
        changes.flatMap(({ rows }) => rows.map(({ thing }) => thing)),
      );
      const undone = await this.log.undone(queries, changes.at(-1)?.id ?? 0);
      /** Whether a change was undone and the undo was not. */
      const isUndone = (id: number): boolean => undone.some((undo) => undo.undoes === id && !isUndone(undo.id));
      return changes.map(({ id, count, kinds, rows }): ChangeReply => {
        const { at, actor: who, action, why, undoes } = rows[0]!;
        return {
          id,
          at: at.toISOString(),
          actor: who,
          action,
          why,
          undoes,
          isUndone: isUndone(id),
          canUndo: !isUndone(id) && kinds.every((kind) => this.canUndo(actor, kind)),
          things: rows.map((row) => this.told(row, names)),
          moreThings: count - rows.length,
        };
      });
    });
  }

  private canUndo(actor: Actor, kind: string): boolean {
    const known = this.things.find(kind);
    return known !== undefined && may(actor, known.change);
  }

  /** What an entry says of its thing. */
  told(
    { thing, before, after }: Pick<LogRow, 'thing' | 'before' | 'after'>,
    names: ReadonlyMap<string, string>,
  ): ChangedThingReply {
    return { thing, called: this.things.calledOf(thing, before ?? after, names), fields: differences(before, after) };
  }
}
