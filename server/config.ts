import { z } from "zod";

const schema = z.object({
  DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/ }),
  /** 32 random bytes, base64: encrypts platform credentials at rest. */
  LIVERY_SECRET_KEY: z.base64().refine((v) => Buffer.from(v, "base64").length === 32, {
    message: "must be 32 bytes in base64 (openssl rand -base64 32)",
  }),
  /** Address under which people reach Livery; https makes the session cookie Secure. */
  LIVERY_ORIGIN: z.url().default("http://127.0.0.1:4600"),
  PORT: z.coerce.number().int().min(1).max(65535).default(4600),
  HOST: z.string().default("127.0.0.1"),
  /** First pause before a failed delivery is tried again; doubles with every attempt. */
  LIVERY_RETRY_MS: z.coerce.number().int().min(10).default(2000),
  /** How many jobs one worker process works on at a time. */
  LIVERY_WORKER_JOBS: z.coerce.number().int().min(1).max(100).default(8),
  /** How often a place is looked at for drift, in minutes. */
  LIVERY_DRIFT_MINUTES: z.coerce.number().min(0.01).default(60),
  /** How long browsers go by their copy of a hosted stylesheet before they ask, in seconds. */
  LIVERY_STYLESHEET_SECONDS: z.coerce.number().int().min(0).default(5),
  /** Folder for the last good copies of hosted stylesheets, for times without a database. */
  LIVERY_STYLESHEET_COPIES: z.string().optional(),
  /** Failed sign-ins that one account, or one address, may make in fifteen minutes. */
  LIVERY_SIGN_IN_ATTEMPTS: z.coerce.number().int().min(1).default(8),
});

export type Config = z.infer<typeof schema>;

/** Configuration that is missing or malformed; the message names each variable and what it must be. */
export class ConfigError extends Error {
  override name = "ConfigError";
}

let loaded: Config | undefined;

/** The process's configuration, read from the environment once. Throws ConfigError. */
export function config(): Config {
  if (loaded) return loaded;
  const result = schema.safeParse(process.env);
  if (!result.success) {
    const lines = result.error.issues.map((i) => `${i.path.join(".")}: ${i.message}`);
    throw new ConfigError(
      `Livery can't start. Set these in the environment:\n  ${lines.join("\n  ")}`,
    );
  }
  loaded = result.data;
  return loaded;
}
