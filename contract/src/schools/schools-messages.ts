import { IsDay, Nested } from '#contract/requests';
import { yearDivisions, type Day, type YearDivision } from '#core/calendar';
import { IsIn, IsString, IsTimeZone, Length, Matches, ValidateIf } from 'class-validator';

/** The district that all schools belong to. */
export class DistrictBody {
  @IsString()
  @Length(1, 80, { message: 'a name of 1 to 80 characters' })
  name!: string;

  @IsTimeZone({ message: 'a time zone such as Europe/London' })
  timeZone!: string;
}

/** The first year of a school, which is divided into periods of about the same length. */
export class FirstYearBody {
  @IsString()
  @Length(1, 40, { message: 'a name of 1 to 40 characters, such as 2026–27' })
  name!: string;

  @IsDay()
  startsOn!: Day;

  @IsDay()
  endsOn!: Day;

  @IsIn(yearDivisions, { message: `one of ${yearDivisions.join(', ')}` })
  division!: YearDivision;
}

/** What a school is called. */
export class SchoolNamesBody {
  @IsString()
  @Length(1, 120, { message: 'a name of 1 to 120 characters' })
  name!: string;

  /** As the frame shows it, without the district's name. */
  @IsString()
  @Length(1, 40, { message: 'a short name of 1 to 40 characters' })
  shortName!: string;

  @IsString()
  @Matches(/^\S{1,20}$/, { message: 'a code of 1 to 20 characters without a space' })
  code!: string;
}

export class OpenSchoolRequest extends SchoolNamesBody {
  /** Null where it stays as it is. */
  @ValidateIf((request: OpenSchoolRequest) => request.district !== null)
  @Nested(() => DistrictBody)
  district!: DistrictBody | null;

  @Nested(() => FirstYearBody)
  year!: FirstYearBody;
}

/** Other names of a school and its district. */
export class RenameSchoolRequest extends SchoolNamesBody {
  /** Of the names that the change began from. */
  @IsString()
  revision!: string;

  @Nested(() => DistrictBody)
  district!: DistrictBody;
}

export interface SchoolNamesReply extends SchoolNamesBody {
  readonly revision: string;
  readonly district: DistrictBody;
}

export interface OpenedSchoolReply {
  readonly schoolId: number;
  /** The first period of its first year. */
  readonly periodId: number;
}
