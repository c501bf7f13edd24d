import { canonicalJson } from '#core/changes';
import { sha256 } from './sha256.js';

/** A short text that changes exactly when the value does, so that a save can say what it began from. */
export function revisionOf(value: unknown): string {
  return sha256(canonicalJson(value)).slice(0, 16);
}
