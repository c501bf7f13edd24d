import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  buildMessage,
  IsArray,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { all } from './all.js';

type Class = new () => object;

/** A field that holds one thing, whose own rules are checked. A list passes for none. */
export function Nested(type: () => Class, message = 'one thing, not a list'): PropertyDecorator {
  return all(IsOneThing({ message }), ValidateNested(), Type(type));
}

/** A field that holds a list of at most so many things, each checked by its own rules. */
export function NestedList(type: () => Class, most: number, message?: string): PropertyDecorator {
  return all(
    IsArray(),
    ArrayMaxSize(most, message === undefined ? {} : { message }),
    IsOneThing({ each: true }),
    ValidateNested({ each: true }),
    Type(type),
  );
}

/** `ValidateNested` looks into a list where a thing is wanted, finds nothing wrong in it, and lets it pass. */
function IsOneThing(options: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isOneThing',
      validator: {
        validate: (value: unknown) => typeof value === 'object' && value !== null && !Array.isArray(value),
        defaultMessage: buildMessage((each) => `${each}one thing, not a list`, options),
      },
    },
    options,
  );
}
