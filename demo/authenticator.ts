import { createHmac } from "node:crypto";

/**
 * What an authenticator app shows of a secret (RFC 6238); a stand-in for the app.
 * @param secret in base 32, as it is shown to be typed in
 */
export function codeOf(secret: string, at = Date.now()): string {
  const bits = [...secret].map((letter) =>
    "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".indexOf(letter).toString(2).padStart(5, "0"),
  );
  const key = Buffer.from((bits.join("").match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
  const hash = createHmac("sha1", key).update(counter).digest();
  const from = (hash.at(-1) ?? 0) & 15;
  return String((hash.readUInt32BE(from) & 0x7fffffff) % 1_000_000).padStart(6, "0");
}
