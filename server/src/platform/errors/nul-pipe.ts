import { Injectable, type ArgumentMetadata, type PipeTransform } from '@nestjs/common';
import { Refusal, type FieldFault } from './refusal.js';

/** No text may hold NUL: the database cannot keep it, and nobody types it. */
@Injectable()
export class NulPipe implements PipeTransform {
  transform(value: unknown, { type, data }: ArgumentMetadata): unknown {
    if (type === 'custom') return value;
    const faults = nulFaults(value, data ?? '');
    if (faults.length > 0) throw new Refusal('fields-wrong', {}, faults);
    return value;
  }
}

function nulFaults(value: unknown, field: string): FieldFault[] {
  if (typeof value === 'string') return value.includes('\0') ? [{ field, detail: 'text without NUL characters' }] : [];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, inner]) => nulFaults(inner, field === '' ? key : `${field}.${key}`));
}
