import { PGlite } from '@electric-sql/pglite';

type Send = PGlite['execProtocolRawStream'];

const codeOf = (letter: string) => letter.codePointAt(0)!;

/** Parse, Bind, Describe, Execute and Close: whoever sends one of them waits for no answer before Sync or Flush. */
const steps = new Set(Array.from('PBDEC', codeOf));

/** The first message of a client begins with its length, whose first byte is 0; its last one is Terminate. */
const edges = new Set([0, codeOf('X')]);

/**
 * PGlite for one client at a time that sends it one message of PostgreSQL's protocol after the other. A statement is four or five
 * of them, and handing one over takes longer than PostgreSQL takes for most; so those that nobody waits for go together with the
 * one that somebody does wait for.
 */
export class GatheringPglite extends PGlite {
  private held: Uint8Array[] = [];

  override async execProtocolRawStream(...[message, options]: Parameters<Send>): Promise<void> {
    const kind = message[0]!;
    if (edges.has(kind)) this.held = []; // what a client began before it went is of no use to the next
    this.held.push(message);
    if (steps.has(kind)) return;
    const together = Buffer.concat(this.held);
    this.held = [];
    await super.execProtocolRawStream(together, options);
  }
}
