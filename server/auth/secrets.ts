import { createCipheriv, createDecipheriv, randomBytes } from "node:crypto";
import { config } from "../config.ts";

const key = () => Buffer.from(config().LIVERY_SECRET_KEY, "base64");

/** Encrypts a credential for the database with AES-256-GCM: `v1.<iv>.<tag>.<text>` in base64url. */
export function encryptSecret(secret: string): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv("aes-256-gcm", key(), iv);
  const text = Buffer.concat([cipher.update(secret, "utf8"), cipher.final()]);
  return ["v1", ...[iv, cipher.getAuthTag(), text].map((b) => b.toString("base64url"))].join(".");
}

/** A stored credential that this process's key does not open. */
export class SecretError extends Error {
  override name = "SecretError";
}

/** Decrypts what encryptSecret wrote. Throws SecretError where key or text is another. */
export function decryptSecret(stored: string): string {
  const [version, iv, tag, text] = stored.split(".");
  if (version !== "v1" || !iv || !tag || text === undefined) throw new SecretError("malformed");
  try {
    const decipher = createDecipheriv("aes-256-gcm", key(), Buffer.from(iv, "base64url"));
    decipher.setAuthTag(Buffer.from(tag, "base64url"));
    const clear = [decipher.update(Buffer.from(text, "base64url")), decipher.final()];
    return Buffer.concat(clear).toString("utf8");
  } catch {
    throw new SecretError("LIVERY_SECRET_KEY is not the key that this credential was stored with");
  }
}
