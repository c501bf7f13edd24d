import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { Refusal, type FieldFault } from './refusal.js';

/** Checks request bodies against their contract class and names every wrong field. */
export function createValidationPipe(): ValidationPipe {
  return new ValidationPipe({
    transform: true,
    whitelist: true,
    forbidNonWhitelisted: true,
    exceptionFactory: (errors) =>
      new Refusal(
        'fields-wrong',
        {},
        errors.flatMap((error) => fieldFaults(error, '')),
      ),
  });
}

function fieldFaults(error: ValidationError, path: string): FieldFault[] {
  const field = path ? `${path}.${error.property}` : error.property;
  const own = Object.values(error.constraints ?? {}).map((detail) => ({ field, detail }));
  return [...own, ...(error.children ?? []).flatMap((child) => fieldFaults(child, field))];
}
