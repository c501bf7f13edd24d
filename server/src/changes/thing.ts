import { applyDecorators, Injectable, SetMetadata } from '@nestjs/common';
import type { Action } from '#core/access';
import type { Actor, PlaceOf, Queries } from '#server/platform';

/**
 * A kind of thing that people change: how it is read and written. Its values are plain JSON, as they cross the wire and stand in
 * the log, so that what the log tells of can be written again. Many are read and written at once.
 */
export interface Thing<Value> {
  /** What people call one of them by itself, such as a course's title; without it they are called by their kind alone. */
  title?(value: Value): string;
  /** What people call those of these whose values do not name them, such as the student of a grade; many at once. */
  names?(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>>;
  /**
   * Where one stands by what it is or is to be, for those whose ids do not say it (`at`): a student by their school, null for
   * what all schools share.
   */
  within?(value: Value): readonly (PlaceOf | null)[];
  /**
   * Keeps others from changing what these hang on until the transaction ends. Called before anything is read, so that
   * everybody locks in one order. @throws Refusal where what they hang on is closed to changes, such as a sealed period
   */
  hold?(queries: Queries, ids: readonly string[]): Promise<void>;
  /** As they stand, by their numbers; one that there is not is not in the answer. Nobody else changes them meanwhile. */
  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, Value>>;
  /**
   * Whether things may be as they are to be, null for one that is to go. Asked before they are written, of an undo as of a save.
   * @throws Refusal
   */
  check(queries: Queries, values: ReadonlyMap<string, Value | null>, actor: Actor): Promise<void>;
  /** Makes and changes things to be as they are given, and removes those that are null. Called by `Changes` alone. */
  write(queries: Queries, values: ReadonlyMap<string, Value | null>, actor: Actor): Promise<void>;
}

export const THING = 'thing';

export interface ThingFacts {
  /** One word, such as "report-item"; permanent, as the log names things by it. */
  readonly kind: string;
  /** What people call it in a sentence: "the GPA settings". */
  readonly called: string;
  /** What it is to change it, and so to undo a change of it. */
  readonly change: Action;
  /** What it is to look at it and its history. */
  readonly see: Action;
  /** Where one stands by its id; null for what all schools share. Without it its values say so (`within`). */
  readonly at?: (id: string) => PlaceOf | null;
}

/** Makes a provider the way to a kind of thing. */
export const ThingOf = (facts: ThingFacts): ClassDecorator => applyDecorators(Injectable(), SetMetadata(THING, facts));
