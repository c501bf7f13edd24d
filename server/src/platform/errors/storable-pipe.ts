import { Injectable, type ArgumentMetadata, type PipeTransform } from '@nestjs/common';
import { largestId } from '#contract/requests';
import { Refusal, type FieldFault } from './refusal.js';

/** No request of ours goes deeper: a list of things, each with a list of things. */
const deepest = 12;

/** NUL, or a half of a character without its other half. */
const unreadable = /[\0\p{Surrogate}]/u;

/**
 * Lets nothing through that the database cannot keep: a text with NUL or with half a character, a whole number beyond its
 * integers. Nor what is nested deeper than any request, or given twice in an address, where one is wanted.
 */
@Injectable()
export class StorablePipe implements PipeTransform {
  transform(value: unknown, { type, data, metatype }: ArgumentMetadata): unknown {
    if (type === 'custom') return value;
    if (metatype === Number && Number(value) > largestId)
      throw new Refusal('not-found', { what: data ?? type, id: String(value) });
    const fault =
      metatype === String && Array.isArray(value)
        ? { field: data ?? '', detail: 'given once, not several times' }
        : findFault(value, data ?? '');
    if (fault) throw new Refusal('fields-wrong', {}, [fault]);
    return value;
  }
}

/** The first fault; without recursion, as what is nested deep enough would end it. */
function findFault(whole: unknown, name: string): FieldFault | undefined {
  const waiting = [{ value: whole, field: name, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, field, depth } = next;
    const detail = detailOf(value, depth);
    if (detail !== undefined) return { field, detail };
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, inner] of Object.entries(value).toReversed()) {
      if (unreadable.test(key)) return { field, detail: 'names of fields that can be read' };
      waiting.push({ value: inner, field: field === '' ? key : `${field}.${key}`, depth: depth + 1 });
    }
  }
  return undefined;
}

function detailOf(value: unknown, depth: number): string | undefined {
  if (depth > deepest) return `at most ${deepest} levels within one another`;
  if (typeof value === 'number' && Math.abs(value) > largestId) return `at most ${largestId}`;
  if (typeof value !== 'string') return undefined;
  if (value.includes('\0')) return 'text without NUL characters';
  return unreadable.test(value) ? 'text of whole characters: half of one stands in it' : undefined;
}
