import { Injectable } from '@nestjs/common';
import { and, desc, eq, gt, inArray, sql } from 'drizzle-orm';
import { canonicalJson } from '#core/changes';
import type { UndoReply } from '#contract/changes';
import { Refusal, tables, Transactions, type Actor, type Queries } from '#server/platform';
import { ChangeLog } from './change-log.js';
import { tellOfChange } from './made-change.js';
import { revisionOf } from './revision.js';
import { kindAndId, thingName } from './thing-name.js';
import { Things } from './things.js';

/** One thing as it is to be. */
export interface Edit {
  readonly kind: string;
  /** Its number or name among its kind, without spaces. */
  readonly id: string;
  /** The revision of the value that the change began from; undefined where it began from nothing that could have changed. */
  readonly expected?: string | undefined;
  /** Null to remove it. */
  readonly after: unknown;
}

export interface NewChange {
  /** What is done, in words: "save the GPA settings". */
  readonly action: string;
  readonly why?: string | undefined;
  /** Written in this order; an undo goes the other way round. */
  readonly edits: readonly Edit[];
}

/** An edit beside what stands there now. */
interface Planned extends Edit {
  readonly thing: string;
  readonly before: unknown;
}

const { changeLog } = tables;

/**
 * The one way in which things change: what stands there is compared with what the change began from, the domain's own way
 * writes it, and the log tells of it, all in one transaction. And the one way back.
 */
@Injectable()
export class Changes {
  constructor(
    private readonly transactions: Transactions,
    private readonly things: Things,
    private readonly log: ChangeLog,
  ) {}

  /**
   * Makes a change within a transaction. What already is as it is to be is left out of it.
   * @returns its number; null where nothing was to be done
   * @throws Refusal changed-meanwhile, and whatever a kind of thing refuses
   */
  make(queries: Queries, actor: Actor, change: NewChange): Promise<number | null> {
    return this.apply(queries, actor, change, null);
  }

  /**
   * Puts everything that a change touched back as it was before, as a change of its own.
   * @throws Refusal not-found, cannot-undo, cannot-bring-back, or moved-on where something was changed since
   */
  async undo(actor: Actor, changeId: number): Promise<UndoReply> {
    return this.transactions.run(async (queries) => {
      const entries = await queries
        .select()
        .from(changeLog)
        .where(eq(changeLog.changeId, changeId))
        .orderBy(changeLog.id);
      const [first] = entries;
      if (!first) throw new Refusal('not-found', { what: 'change', id: changeId });
      const kinds = entries.map(({ thing }) => this.things.find(kindAndId(thing)[0]));
      // Whoever may not change a thing does not learn from a refusal that somebody did.
      if (kinds.some((kind) => kind?.policy(actor) === false))
        throw new Refusal('not-found', { what: 'change', id: changeId });
      if (kinds.includes(undefined)) throw new Refusal('cannot-undo', { action: first.action });
      const edits = entries.toReversed().map(({ thing, before, after }) => {
        const [kind, id] = kindAndId(thing);
        return { kind, id, expected: revisionOf(after), after: before };
      });
      await this.refuseMovedOn(queries, first, edits);
      const change = { action: undoing(first.action), edits };
      const id = await this.apply(queries, actor, change, changeId).catch((error: unknown) => {
        if (error instanceof Refusal && error.code === 'fields-wrong')
          throw new Refusal('cannot-bring-back', { action: first.action }, error.fields);
        throw isUnmet(error) ? new Refusal('cannot-bring-back', { action: first.action }) : error;
      });
      return { id: id!, action: change.action };
    });
  }

  private async apply(
    queries: Queries,
    actor: Actor,
    { action, why, edits }: NewChange,
    undoes: number | null,
  ): Promise<number | null> {
    const planned = (await this.plan(queries, edits)).filter(
      ({ before, after }) => canonicalJson(before) !== canonicalJson(after),
    );
    if (planned.length === 0) return null;
    for (const [kind, own] of byKind(planned)) {
      const values = new Map(own.map((edit) => [edit.id, edit.after]));
      const { way } = this.things.of(kind);
      await way.check(queries, values);
      await way.write(queries, values);
    }
    const id = await this.log.recordChange(
      queries,
      actor,
      { undoes, why: why ?? null },
      planned.map(({ thing, before, after }) => ({ action, thing, before, after })),
    );
    tellOfChange(id);
    return id;
  }

  /** Locks the things, in one order for everybody, and puts beside each edit what stands there. */
  private async plan(queries: Queries, edits: readonly Edit[]): Promise<Planned[]> {
    const names = edits.map(nameOf).toSorted();
    await queries.execute(sql`
      SELECT pg_advisory_xact_lock(hashtext(thing)) FROM jsonb_array_elements_text(${JSON.stringify(names)}::jsonb) AS thing`);
    const found = new Map<string, unknown>();
    for (const [kind, own] of byKind(edits)) {
      const ids = own.map(({ id }) => id);
      for (const [id, value] of await this.things.of(kind).way.read(queries, ids))
        found.set(nameOf({ kind, id }), value);
    }
    const planned = edits.map((edit) => ({ ...edit, thing: nameOf(edit), before: found.get(nameOf(edit)) ?? null }));
    const stale = planned.find(({ expected, before }) => expected !== undefined && expected !== revisionOf(before));
    if (stale) throw await this.changedMeanwhile(queries, stale);
    return planned;
  }

  private async changedMeanwhile(queries: Queries, { thing, kind }: Planned): Promise<Refusal> {
    const [last] = await queries
      .select({ actor: changeLog.actor })
      .from(changeLog)
      .where(eq(changeLog.thing, thing))
      .orderBy(desc(changeLog.id))
      .limit(1);
    return new Refusal('changed-meanwhile', { what: this.calledOf(kind), who: last?.actor ?? 'Someone else' });
  }

  /** What was done since to what the change touched: by whom, and what. An undo of it does not stand in the way of a redo. */
  private async refuseMovedOn(
    queries: Queries,
    { changeId }: { changeId: number | null },
    edits: readonly (Edit & { readonly expected: string })[],
  ): Promise<void> {
    const planned = await this.plan(
      queries,
      edits.map(({ expected: _expected, ...edit }) => edit),
    );
    const moved = planned.filter(({ before }, at) => revisionOf(before) !== edits[at]!.expected);
    if (moved.length === 0) return;
    const since = await queries
      .selectDistinctOn([changeLog.thing], { thing: changeLog.thing, actor: changeLog.actor, action: changeLog.action })
      .from(changeLog)
      .where(
        and(
          inArray(
            changeLog.thing,
            moved.map(({ thing }) => thing),
          ),
          gt(changeLog.changeId, changeId!),
        ),
      )
      .orderBy(changeLog.thing, desc(changeLog.id));
    const details = moved.map(({ thing, kind }) => {
      const last = since.find((entry) => entry.thing === thing);
      const what = last ? `${last.actor} did this since: ${last.action}` : 'it was changed since';
      return { field: thing, detail: `${this.calledOf(kind)}: ${what}` };
    });
    throw new Refusal('moved-on', { reasons: details.map(({ detail }) => detail).join('; ') }, details);
  }

  private calledOf(kind: string): string {
    return this.things.find(kind)?.called ?? kind;
  }
}

/** @example undoing('undo: save the codes') // 'redo: save the codes' */
function undoing(action: string): string {
  const [, how, bare = action] = /^(undo|redo): (.*)$/.exec(action) ?? [];
  return `${how === 'undo' ? 'redo' : 'undo'}: ${bare}`;
}

/** Whether the database refuses a row as something that it needs is not there, or stands in its place. */
function isUnmet(error: unknown): boolean {
  return ((error as Error).cause as { code?: string } | undefined)?.code?.startsWith('23') ?? false;
}

const nameOf = ({ kind, id }: Pick<Edit, 'kind' | 'id'>) => thingName(kind, id);

/** In the order in which the kinds first come. */
function byKind<Each extends Edit>(edits: readonly Each[]): Map<string, Each[]> {
  const groups = new Map<string, Each[]>();
  for (const edit of edits) groups.set(edit.kind, [...(groups.get(edit.kind) ?? []), edit]);
  return groups;
}
