import { createHash, createSign, generateKeyPairSync, randomBytes, type KeyObject } from 'node:crypto';
import type { NewPasskeyOptionsReply, PasskeyOptionsReply } from '#contract/people';

/*
 * A device that makes and shows keys, after Web Authentication (W3C, level 3), sections 6.1 (authenticator data), 6.5 (attestation
 * object, format "none") and 5.8.1 (client data); keys as COSE (RFC 9053, ES256) in CBOR (RFC 8949).
 */

interface HowItAnswers {
  /** Where the browser is. */
  readonly origin: string;
  /** Whether the device asked for a finger, a face or a PIN. */
  readonly isVerified?: boolean;
  /** By another name than that of the site. */
  readonly host?: string;
}

export class TestAuthenticator {
  readonly id = randomBytes(16);
  private readonly keys = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  /** How often it was used, as it says. */
  counter = 0;

  /** Answers a request for a new key. */
  make({ challenge, rp }: NewPasskeyOptionsReply, { origin, isVerified = true, host }: HowItAnswers) {
    const length = Buffer.from([0, this.id.length]);
    const attested = Buffer.concat([Buffer.alloc(16), length, this.id, coseKey(this.keys.publicKey)]);
    const data = authenticatorData(host ?? rp.id!, 0x40 | flagsOf(isVerified), this.counter, attested);
    const attestationObject = map(
      [text('fmt'), text('none')],
      [text('attStmt'), map()],
      [text('authData'), bytes(data)],
    );
    return this.answer({
      clientDataJSON: clientData('webauthn.create', challenge, origin),
      attestationObject: attestationObject.toString('base64url'),
      transports: ['internal' as const],
    });
  }

  /** Shows that it has the key; `by` another one signs in its place. */
  show(
    { challenge, rpId }: PasskeyOptionsReply,
    { origin, isVerified = true, host }: HowItAnswers,
    by: TestAuthenticator = this,
  ) {
    this.counter++;
    const data = authenticatorData(host ?? rpId!, flagsOf(isVerified), this.counter);
    const clientDataJSON = clientData('webauthn.get', challenge, origin);
    const signed = Buffer.concat([data, sha256(Buffer.from(clientDataJSON, 'base64url'))]);
    return this.answer({
      clientDataJSON,
      authenticatorData: data.toString('base64url'),
      signature: createSign('SHA256').update(signed).sign(by.keys.privateKey).toString('base64url'),
    });
  }

  private answer<Response>(response: Response) {
    const id = this.id.toString('base64url');
    return { id, rawId: id, type: 'public-key' as const, clientExtensionResults: {}, response };
  }
}

const sha256 = (of: Buffer | string) => createHash('sha256').update(of).digest();

/** User present, and verified. */
const flagsOf = (isVerified: boolean) => (isVerified ? 0x05 : 0x01);

function authenticatorData(host: string, flags: number, counter: number, attested = Buffer.alloc(0)): Buffer {
  const count = Buffer.alloc(4);
  count.writeUInt32BE(counter);
  return Buffer.concat([sha256(host), Buffer.from([flags]), count, attested]);
}

function clientData(type: string, challenge: string, origin: string): string {
  return Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false })).toString('base64url');
}

/** kty EC2, alg ES256, crv P-256, x and y. */
function coseKey(key: KeyObject): Buffer {
  const { x, y } = key.export({ format: 'jwk' });
  const point = (text: string | undefined) => bytes(Buffer.from(text!, 'base64url'));
  return map(
    [whole(1), whole(2)],
    [whole(3), whole(-7)],
    [whole(-1), whole(1)],
    [whole(-2), point(x)],
    [whole(-3), point(y)],
  );
}

/** The shortest form, as authenticators have to write it. */
function head(major: number, value: number): Buffer {
  if (value < 24) return Buffer.from([(major << 5) | value]);
  return value < 256
    ? Buffer.from([(major << 5) | 24, value])
    : Buffer.from([(major << 5) | 25, value >> 8, value & 255]);
}
const whole = (value: number) => (value < 0 ? head(1, -1 - value) : head(0, value));
const bytes = (value: Buffer) => Buffer.concat([head(2, value.length), value]);
const text = (value: string) => Buffer.concat([head(3, value.length), Buffer.from(value)]);
const map = (...pairs: [Buffer, Buffer][]) => Buffer.concat([head(5, pairs.length), ...pairs.flat()]);
