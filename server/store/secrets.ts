import {
  createCipheriv,
  createDecipheriv,
  createPrivateKey,
  generateKeyPairSync,
  hkdfSync,
  randomBytes,
} from 'node:crypto';
import { chmodSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';

const keysSchema = z.object({
  /** 32 bytes in base 64 that everything else is derived from. */
  root: z.string().regex(/^[A-Za-z0-9+/]{43}=$/),
  /** A private key on P-256, as PEM. */
  signing: z.string(),
});
type Keys = z.infer<typeof keysSchema>;

/** Of AES in Galois/Counter Mode (NIST SP 800-38D): bytes of the nonce and of the tag. */
const [NONCE, TAG] = [12, 16];
const CIPHER = 'aes-256-gcm';

/**
 * Keys of a server: they lie in one file beside its data, which only its own user may read, and others are
 * derived from them (HKDF, RFC 5869).
 */
export class Secrets {
  private constructor(private readonly keys: Keys) {}

  /** Opens the keys of a folder; they are made where there are none. @throws where they cannot be read or written. */
  static open(folder: string): Secrets {
    const file = path.join(folder, 'keys.json');
    if (!existsSync(file)) {
      const made: Keys = {
        root: randomBytes(32).toString('base64'),
        signing: generateKeyPairSync('ec', { namedCurve: 'P-256' })
          .privateKey.export({ type: 'pkcs8', format: 'pem' })
          .toString(),
      };
      writeFileSync(file, JSON.stringify(made), { mode: 0o600, flag: 'wx' });
    }
    chmodSync(file, 0o600);
    return new Secrets(keysSchema.parse(JSON.parse(readFileSync(file, 'utf8'))));
  }

  /** Client secret that we authenticate with at an outlet's authorization server. */
  clientSecret = (outlet: string): string => this.derived(`client ${outlet}`).toString('base64url');
  /** Key that an outlet's stand-in signs its cookies with. */
  cookieKey = (outlet: string): string => this.derived(`cookies ${outlet}`).toString('base64url');

  /** Key that the stand-ins sign their identity tokens with, as a JSON Web Key. */
  signingKey(): Record<string, unknown> {
    return {
      ...createPrivateKey(this.keys.signing).export({ format: 'jwk' }),
      alg: 'ES256',
      use: 'sig',
      kid: 'own',
    };
  }

  /** Encrypts a text. @param owner who it is for: for another it cannot be opened. */
  seal(text: string, owner: string): string {
    const nonce = randomBytes(NONCE);
    const cipher = createCipheriv(CIPHER, this.derived('tokens'), nonce).setAAD(Buffer.from(owner));
    return Buffer.concat([nonce, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]).toString(
      'base64',
    );
  }

  /** @throws where it was not sealed for that owner with these keys, or was changed since. */
  unseal(sealed: string, owner: string): string {
    const bytes = Buffer.from(sealed, 'base64');
    const decipher = createDecipheriv(CIPHER, this.derived('tokens'), bytes.subarray(0, NONCE))
      .setAAD(Buffer.from(owner))
      .setAuthTag(bytes.subarray(bytes.length - TAG));
    const text = decipher.update(bytes.subarray(NONCE, bytes.length - TAG));
    return Buffer.concat([text, decipher.final()]).toString('utf8');
  }

  private derived(what: string): Buffer {
    return Buffer.from(hkdfSync('sha256', Buffer.from(this.keys.root, 'base64'), '', what, 32));
  }
}
