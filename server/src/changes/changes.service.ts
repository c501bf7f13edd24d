import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { canonicalJson } from '#core/changes';
import type { UndoReply } from '#contract/changes';
import { isConstraintViolation, Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ChangeLog } from './change-log.js';
import { LogRepository } from './log.repository.js';
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
    private readonly entries: LogRepository,
  ) {}

  /**
   * Makes a change within a transaction. What already is as it is to be is left out of it.
   * @returns its number; null where nothing was to be done
   * @throws Refusal not-allowed, changed-meanwhile, and whatever a kind of thing refuses
   */
  async make(queries: Queries, actor: Actor, { action, why, edits }: NewChange): Promise<number | null> {
    const names = edits.map(nameOf);
    const concerned = edits.map((edit) => ({ thing: nameOf(edit), values: [edit.after] }));
    if (!(await this.things.canChange(queries, actor, concerned))) throw new Refusal('not-allowed');
    await this.things.hold(queries, names);
    const planned = await this.plan(queries, edits);
    const stale = planned.find(({ expected, before }) => expected !== undefined && expected !== revisionOf(before));
    if (stale) throw await this.changedMeanwhile(queries, stale);
    return this.carryOut(queries, actor, { action, why: why ?? null, undoes: null }, planned);
  }

  /**
   * Puts everything that a change touched back as it was before, as a change of its own.
   * @throws Refusal not-found, cannot-undo, cannot-bring-back, or moved-on where something was changed since
   */
  async undo(actor: Actor, changeId: number): Promise<UndoReply> {
    return this.transactions.run(async (queries) => {
      const entries = await this.entries.ofChange(queries, changeId);
      const names = entries.map(({ thing }) => thing);
      // Whoever may not change a thing does not learn from a refusal that somebody did.
      const concerned = entries.map(({ thing, before, after }) => ({ thing, values: [before, after] }));
      if (entries.length === 0 || !(await this.things.canChange(queries, actor, concerned)))
        throw new Refusal('not-found', { what: 'change', id: changeId });
      const undone = entries[0]!.action;
      if (names.some((thing) => !this.things.find(kindAndId(thing)[0])))
        throw new Refusal('cannot-undo', { action: undone });
      await this.things.hold(queries, names);
      const planned = await this.plan(
        queries,
        entries.map(({ thing, before, after }) => {
          const [kind, id] = kindAndId(thing);
          return { kind, id, expected: revisionOf(after), after: before };
        }),
      );
      const moved = planned.filter(({ expected, before }) => expected !== revisionOf(before));
      if (moved.length > 0) throw await this.movedOn(queries, changeId, moved);
      const facts = { action: undoing(undone), why: null, undoes: changeId };
      const id = await this.carryOut(queries, actor, facts, planned).catch((error: unknown) => {
        throw asGone(error, undone);
      });
      return { id: id!, action: facts.action };
    });
  }

  /** A thing as it stands, as its kind says it in the contract; null where there is none. */
  async valueOf<Value>(queries: Queries, kind: string, id: string): Promise<Value | null> {
    const found = await this.things.of(kind).way.read(queries, [id]);
    return (found.get(id) as Value | undefined) ?? null;
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
        found.set(thingName(kind, id), value);
    }
    return edits.map((edit) => ({ ...edit, thing: nameOf(edit), before: found.get(nameOf(edit)) ?? null }));
  }

  private async carryOut(
    queries: Queries,
    actor: Actor,
    { action, ...facts }: { readonly action: string; readonly why: string | null; readonly undoes: number | null },
    planned: readonly Planned[],
  ): Promise<number | null> {
    const differing = planned.filter(({ before, after }) => canonicalJson(before) !== canonicalJson(after));
    if (differing.length === 0) return null;
    for (const [kind, own] of byKind(differing)) {
      const values = new Map(own.map((edit) => [edit.id, edit.after]));
      const { way } = this.things.of(kind);
      await way.check(queries, values, actor);
      await way.write(queries, values, actor);
    }
    // As it stands now, so that a number written as 89.5 and kept as 89.50 is the same when it is compared.
    const written = await this.plan(queries, differing);
    const entries = differing.map(({ thing, before }, at) => ({ action, thing, before, after: written[at]!.before }));
    const id = await this.log.record(queries, actor, entries, facts);
    if (id !== null) tellOfChange(id);
    return id;
  }

  private async changedMeanwhile(queries: Queries, planned: Planned): Promise<Refusal> {
    const who = await this.entries.lastActor(queries, planned.thing);
    return new Refusal('changed-meanwhile', {
      what: this.things.calledOf(planned.thing, planned.before ?? planned.after),
      who: who ?? 'Someone else',
    });
  }

  /** What was done to things since a change: by whom, and what. */
  private async movedOn(queries: Queries, changeId: number, moved: readonly Planned[]): Promise<Refusal> {
    const since = await this.entries.lastSince(
      queries,
      moved.map(({ thing }) => thing),
      changeId,
    );
    const details = moved.map(({ thing, before, after }) => {
      const last = since.find((entry) => entry.thing === thing);
      const what = last ? `${last.actor} did this since: ${last.action}` : 'it was changed since';
      return { field: thing, detail: `${this.things.calledOf(thing, before ?? after)}: ${what}` };
    });
    return new Refusal('moved-on', { reasons: details.map(({ detail }) => detail).join('; ') }, details);
  }
}

/** @example undoing('undo: save the codes') // 'redo: save the codes' */
function undoing(action: string): string {
  const [, how, bare = action] = /^(undo|redo): (.*)$/.exec(action) ?? [];
  return `${how === 'undo' ? 'redo' : 'undo'}: ${bare}`;
}

/** What an undo says where a save would name a field, or the database a row, as something is gone that the thing names. */
function asGone(error: unknown, action: string): unknown {
  if (error instanceof Refusal)
    return error.code === 'fields-wrong' ? new Refusal('cannot-bring-back', { action }, error.fields) : error;
  return isConstraintViolation(error) ? new Refusal('cannot-bring-back', { action }) : error;
}

const nameOf = ({ kind, id }: Pick<Edit, 'kind' | 'id'>) => thingName(kind, id);

/** In the order in which the kinds first come. */
function byKind<Each extends Edit>(edits: readonly Each[]): Map<string, Each[]> {
  const groups = new Map<string, Each[]>();
  for (const edit of edits) groups.set(edit.kind, [...(groups.get(edit.kind) ?? []), edit]);
  return groups;
}
