import { IsObject, IsString, Length } from 'class-validator';
import type {
  AuthenticationResponseJSON,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';

/** What a device is asked to make a key by. (Web Authentication, W3C, level 3: PublicKeyCredentialCreationOptionsJSON) */
export type NewPasskeyOptionsReply = PublicKeyCredentialCreationOptionsJSON;

/** What a device is asked to show that it has a key by. (PublicKeyCredentialRequestOptionsJSON) */
export type PasskeyOptionsReply = PublicKeyCredentialRequestOptionsJSON;

export class AddPasskeyRequest {
  @IsString()
  @Length(1, 60, { message: 'a name of 1 to 60 characters, such as that of the device' })
  name!: string;

  /** As the device answered; what it means is looked at by the verification alone. */
  @IsObject()
  response!: RegistrationResponseJSON;
}

export class SignInByPasskeyRequest {
  /** As the device answered. */
  @IsObject()
  response!: AuthenticationResponseJSON;
}

/** A key of a device, by which somebody signs in without a password. */
export interface PasskeyReply {
  readonly id: number;
  /** As its owner calls it. */
  readonly name: string;
  readonly madeAt: string;
  /** Null until it is used. */
  readonly lastUsedAt: string | null;
}
