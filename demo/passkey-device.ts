import { createHash, createSign, generateKeyPairSync, type KeyObject, randomBytes } from "node:crypto";
import { isoCBOR } from "@simplewebauthn/server/helpers";
import type { MadePasskey, ShownPasskey } from "#contract";

/** What a device signs about itself: the person is here, and was made sure of; a new key comes with it. */
const [HERE, SURE, WITH_KEY] = [0x01, 0x04, 0x40];

interface Held {
  readonly credentialId: string;
  readonly userHandle: string;
  readonly key: KeyObject;
  counter: number;
}

/** How a device may go wrong, or lie. */
interface Lies {
  /** Under which pages it believes to be. */
  readonly origin?: string;
  /** Whether it made sure of the person; it does. */
  readonly sure?: boolean;
  /** The count of its signatures, where it is set back. */
  readonly counter?: number;
}

const letters = (bytes: Uint8Array): string => Buffer.from(bytes).toString("base64url");
const hash = (text: string): Buffer => createHash("sha256").update(text).digest();

/**
 * A device that holds passkeys, as a telephone or a security key does: a stand-in, with keys on the curve P-256 (ES256).
 * @param origin of the pages that ask it
 */
export function passkeyDevice(origin: string) {
  const held: Held[] = [];
  const clientData = (type: "webauthn.create" | "webauthn.get", challenge: string, lies: Lies) =>
    Buffer.from(JSON.stringify({ type, challenge, origin: lies.origin ?? origin, crossOrigin: false }));
  const about = (rpId: string, counter: number, { sure = true }: Lies, more = 0, key = Buffer.alloc(0)) => {
    const count = Buffer.alloc(4);
    count.writeUInt32BE(counter);
    return Buffer.concat([hash(rpId), Buffer.from([HERE | (sure ? SURE : 0) | more]), count, key]);
  };
  return {
    held,
    /** Makes a passkey as it is asked to. */
    make(options: PublicKeyCredentialCreationOptionsJSON, lies: Lies = {}): MadePasskey {
      const { privateKey, publicKey } = generateKeyPairSync("ec", { namedCurve: "P-256" });
      const { x = "", y = "" } = publicKey.export({ format: "jwk" });
      const id = randomBytes(32);
      // A key as COSE writes it: an elliptic curve (2), ES256 (-7), P-256 (1).
      const cose = isoCBOR.encode(
        new Map<number, number | Uint8Array>([
          [1, 2],
          [3, -7],
          [-1, 1],
          [-2, new Uint8Array(Buffer.from(x, "base64url"))],
          [-3, new Uint8Array(Buffer.from(y, "base64url"))],
        ]),
      );
      const length = Buffer.alloc(2);
      length.writeUInt16BE(id.length);
      const key = Buffer.concat([Buffer.alloc(16), length, id, cose]);
      const rpId = options.rp.id ?? new URL(origin).hostname;
      const authData = new Uint8Array(about(rpId, 0, lies, WITH_KEY, key));
      const attestation = new Map<string, string | Uint8Array | Map<string, string>>([
        ["fmt", "none"],
        ["attStmt", new Map<string, string>()],
        ["authData", authData],
      ]);
      held.push({ credentialId: letters(id), userHandle: options.user.id, key: privateKey, counter: 0 });
      return {
        ...{ id: letters(id), rawId: letters(id), type: "public-key", clientExtensionResults: {} },
        response: {
          clientDataJSON: letters(clientData("webauthn.create", options.challenge, lies)),
          attestationObject: letters(isoCBOR.encode(attestation)),
          transports: ["internal"],
        },
      };
    },
    /** Shows the passkey that it made last, as it is asked to. */
    show(options: PublicKeyCredentialRequestOptionsJSON, lies: Lies = {}): ShownPasskey {
      const one = held.at(-1);
      if (!one) throw new Error("This device holds no passkey");
      one.counter = lies.counter ?? one.counter + 1;
      const client = clientData("webauthn.get", options.challenge, lies);
      const authData = about(options.rpId ?? new URL(origin).hostname, one.counter, lies);
      const signature = createSign("sha256")
        .update(Buffer.concat([authData, createHash("sha256").update(client).digest()]))
        .sign(one.key);
      const id = one.credentialId;
      return {
        ...{ id, rawId: id, type: "public-key", clientExtensionResults: {} },
        response: {
          clientDataJSON: letters(client),
          authenticatorData: letters(authData),
          signature: letters(signature),
          userHandle: one.userHandle,
        },
      };
    },
  };
}
