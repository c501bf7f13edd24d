import { findChainFault, type ChainedEntry } from '#core/changes';
import { readCopyLines } from '#core/formats';
import { sha256 } from './sha256.js';

/** A piece of the log as text, and the hash that its first entry must build on. */
export interface ChainPiece {
  readonly text: Uint8Array;
  readonly startsAfter: string;
}

/** How far a piece holds together. */
export interface CheckedPiece {
  readonly checked: number;
  readonly lastHash: string;
  /** The first entry that does not follow from the one before; null where all do. */
  readonly faultAt: number | null;
}

/** Runs in a thread: writing a million entries anew and hashing them takes longer than to read them. */
export default function checkPiece({ text, startsAfter }: ChainPiece): CheckedPiece {
  const entries = readCopyLines(new TextDecoder().decode(text)).map(entryOfLine);
  const fault = findChainFault(entries, sha256, startsAfter);
  return {
    checked: fault ? entries.findIndex(({ id }) => id === fault.id) : entries.length,
    lastHash: entries.at(-1)?.hash ?? startsAfter,
    faultAt: fault?.id ?? null,
  };
}

/** In the order of the columns in LogRepository.chainTextAfter. */
function entryOfLine(line: readonly (string | null)[]): ChainedEntry {
  const [id, at, actorId, actor, action, thing, before, after, changeId, undoes, why, previousHash, hash] = line;
  const change =
    changeId == null
      ? null
      : { id: Number(changeId), undoes: undoes == null ? null : Number(undoes), why: why ?? null };
  return {
    id: Number(id),
    at: at!,
    actorId: actorId == null ? null : Number(actorId),
    actor: actor!,
    action: action!,
    thing: thing!,
    before: readJson(before),
    after: readJson(after),
    change,
    previousHash: previousHash!,
    hash: hash!,
  };
}

function readJson(text: string | null | undefined): unknown {
  return text == null ? null : (JSON.parse(text) as unknown);
}
