import { IsInt, IsString, IsUrl, Length } from 'class-validator';

/** A learning platform that is to be read; it answers rosters and columns at its address. */
export class ConnectPlatformRequest {
  @IsInt()
  schoolId!: number;

  @IsString()
  @Length(1, 60, { message: 'a name of at most 60 characters' })
  name!: string;

  @IsUrl(
    { protocols: ['http', 'https'], require_protocol: true, require_tld: false },
    { message: 'an address such as https://platform.example' },
  )
  address!: string;

  @IsString()
  @Length(1, 200, { message: 'the client id that the platform gave out' })
  clientId!: string;

  @IsString()
  @Length(1, 500, { message: 'the secret that belongs to the client id' })
  clientSecret!: string;
}

export interface PlatformReply {
  readonly id: number;
  readonly name: string;
  readonly address: string;
  readonly clientId: string;
  readonly state: 'new' | 'reading' | 'read' | 'failed';
  readonly done: number;
  readonly total: number;
  readonly problem: string | null;
  readonly readAt: string | null;
  readonly classes: number;
  readonly people: number;
  /** Classes and names that are neither joined nor ignored. */
  readonly open: number;
}
