import type { KeptRow, TableImportReply } from '#contract/cell-tables';
import { Nested, NestedList } from '#contract/requests';
import type { Day } from '#core/calendar';
import type { PersonCells, PersonField } from '#core/people';
import { ArrayMaxSize, IsArray, IsInt, IsString, MaxLength, ValidateIf } from 'class-validator';

/** The cells of a person; each is text as in a spreadsheet. */
export class PersonCellsBody implements PersonCells {
  @IsString()
  @MaxLength(200)
  number!: string;

  @IsString()
  @MaxLength(200)
  familyName!: string;

  @IsString()
  @MaxLength(200)
  givenName!: string;

  @IsString()
  @MaxLength(200)
  preferredName!: string;

  @IsString()
  @MaxLength(200)
  kind!: string;

  @IsString()
  @MaxLength(200)
  yearGroup!: string;

  @IsString()
  @MaxLength(200)
  birthDate!: string;

  @IsString()
  @MaxLength(200)
  pronoun!: string;

  @IsString()
  @MaxLength(200)
  enteredOn!: string;

  @IsString()
  @MaxLength(200)
  leftOn!: string;

  @IsString()
  @MaxLength(200)
  email!: string;
}

/** A changed or, with `id` null, a new person. */
export class PersonChangeBody {
  @ValidateIf((change: PersonChangeBody) => change.id !== null)
  @IsInt()
  id!: number | null;

  /** Of the person that the change began from; empty for a new one. */
  @IsString()
  revision!: string;

  @Nested(() => PersonCellsBody)
  cells!: PersonCellsBody;
}

export class SavePeopleRequest {
  @NestedList(() => PersonChangeBody, 5000, 'at most 5,000 people at a time')
  changes!: PersonChangeBody[];

  /** People to delete; only one whom nothing hangs on can go. */
  @IsArray()
  @ArrayMaxSize(5000)
  @IsInt({ each: true })
  removed!: number[];
}

export interface PersonRowReply extends KeptRow<PersonField> {
  /** Whether a roster of another system brought them: its next import writes their names, number and address again. */
  readonly isOfRoster: boolean;
  /** Sections that a student sits in, or that one of the staff teaches, in whichever year. */
  readonly sections: number;
  /** Seats that a student who left has beyond their last day. */
  readonly seatsAfterLeaving: number;
}

export interface PeopleReply {
  /** The day it is in the district: nobody was born after it. */
  readonly today: Day;
  readonly people: readonly PersonRowReply[];
}

export type PeopleImportReply = TableImportReply<PersonField>;
