import { hash, verify } from "@node-rs/argon2";

/**
 * argon2id with 19 MiB, 2 passes, 1 lane: OWASP Password Storage Cheat Sheet's first configuration
 * (value from memory). 2 is Algorithm.Argon2id; the enum is ambient and can't be imported.
 */
const OPTIONS = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, OPTIONS);

export const passwordMatches = (stored: string, password: string): Promise<boolean> =>
  verify(stored, password);

/** Hash of a password nobody has: checked for unknown accounts, so that both answers take as long. */
export const NOBODY: Promise<string> = hashPassword("no account has this password");
