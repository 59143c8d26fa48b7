import { createHash, generateKeyPairSync, randomBytes, sign, type KeyObject } from 'node:crypto';
import { isoCBOR } from '@simplewebauthn/server/helpers';

/** What a device says of itself in the flags of its data: WebAuthn Level 2, 6.1. */
const PRESENT = 0x01;
const VERIFIED = 0x04;
const HAS_KEY = 0x40;

type Given = {
  challenge: string;
  origin?: string;
  site?: string;
  /** False: it did not look at who holds it. */
  isVerified?: boolean;
};

/** A device that makes passkeys and signs with them, as a phone does: ES256, without an attestation. */
export class PasskeyDevice {
  private readonly key: { privateKey: KeyObject; publicKey: KeyObject };

  constructor(
    private readonly origin: string,
    private readonly site: string,
    public counter = 0,
    readonly id = randomBytes(32).toString('base64url'),
  ) {
    this.key = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  }

  /** What the browser answers when a passkey is to be made. */
  make(given: Given): string {
    const { x, y } = this.key.publicKey.export({ format: 'jwk' });
    const id = Buffer.from(this.id, 'base64url');
    const cose = isoCBOR.encode(
      new Map<number, number | Uint8Array>([
        [1, 2],
        [3, -7],
        [-1, 1],
        [-2, new Uint8Array(Buffer.from(x ?? '', 'base64url'))],
        [-3, new Uint8Array(Buffer.from(y ?? '', 'base64url'))],
      ]),
    );
    const length = Buffer.alloc(2);
    length.writeUInt16BE(id.length);
    const authData = Buffer.concat([this.data(given, HAS_KEY), Buffer.alloc(16), length, id, cose]);
    const attestationObject = isoCBOR.encode(
      new Map<string, unknown>([
        ['fmt', 'none'],
        ['attStmt', new Map()],
        ['authData', new Uint8Array(authData)],
      ]) as never,
    );
    return this.answer({
      clientDataJSON: this.client('webauthn.create', given).toString('base64url'),
      attestationObject: Buffer.from(attestationObject).toString('base64url'),
      transports: ['internal'],
    });
  }

  /** What the browser answers when a passkey is to be shown. */
  show(given: Given): string {
    this.counter += 1;
    const data = this.data(given);
    const client = this.client('webauthn.get', given);
    const hash = createHash('sha256').update(client).digest();
    return this.answer({
      clientDataJSON: client.toString('base64url'),
      authenticatorData: data.toString('base64url'),
      signature: sign('sha256', Buffer.concat([data, hash]), this.key.privateKey).toString('base64url'),
      userHandle: null,
    });
  }

  private answer(response: Record<string, unknown>): string {
    return JSON.stringify({
      id: this.id,
      rawId: this.id,
      type: 'public-key',
      clientExtensionResults: {},
      response,
    });
  }

  private client(type: string, { challenge, origin = this.origin }: Given): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
  }

  private data({ site = this.site, isVerified = true }: Given, more = 0): Buffer {
    const counter = Buffer.alloc(4);
    counter.writeUInt32BE(this.counter);
    const flags = PRESENT | (isVerified ? VERIFIED : 0) | more;
    return Buffer.concat([createHash('sha256').update(site).digest(), Buffer.from([flags]), counter]);
  }
}
