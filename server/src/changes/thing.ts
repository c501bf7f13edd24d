import { applyDecorators, Injectable, SetMetadata } from '@nestjs/common';
import type { Queries, RoutePolicy } from '#server/platform';

/**
 * A kind of thing that people change: how it is read and written. Its values are plain JSON, as they cross the wire and stand in
 * the log, so that what the log tells of can be written again. Many are read and written at once.
 */
export interface Thing<Value> {
  /** As they stand, by their numbers; one that there is not is not in the answer. Nobody else changes them meanwhile. */
  read(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, Value>>;
  /** Makes and changes things to be as they are given, and removes those that are null. */
  write(queries: Queries, values: ReadonlyMap<string, Value | null>): Promise<void>;
  /**
   * Whether what was written holds together, asked once all of a change is written, so that an undo is refused for whatever a
   * save would be refused for.
   * @throws Refusal
   */
  check(queries: Queries, ids: readonly string[]): Promise<void>;
}

export const THING = 'thing';

export interface ThingFacts {
  /** One word, such as "report-item"; permanent, as the log names things by it. */
  readonly kind: string;
  /** What people call it in a sentence: "the GPA settings". */
  readonly called: string;
  /** Who may change it, and so undo a change of it. */
  readonly policy: RoutePolicy;
}

/** Makes a provider the way to a kind of thing. */
export const ThingOf = (facts: ThingFacts): ClassDecorator => applyDecorators(Injectable(), SetMetadata(THING, facts));
