import { createHash, randomBytes } from "node:crypto";
import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";
import { Op } from "sequelize";
import { record } from "../audit/audit.ts";
import { config } from "../config.ts";
import { database, inTransaction } from "../db/connection.ts";
import { Person, Session } from "../db/models/index.ts";
import type { PersonId } from "../ids.ts";
import { NOBODY, passwordMatches } from "./password.ts";

/** How long a session lasts, in seconds: one working day. */
export const SESSION_SECONDS = 12 * 60 * 60;
const WINDOW_SECONDS = 15 * 60;

export interface SignedIn {
  id: PersonId;
  name: string;
  email: string;
  capability: "administrator" | "reader";
}

export type SignInResult =
  | { ok: true; token: string }
  | { ok: false; code: "refused" }
  | { ok: false; code: "too-many"; retryAfterSeconds: number };

const limiters = new Map<string, RateLimiterPostgres>();

/** Counts failures in the database, so that every web process sees the same ones. */
function limiter(prefix: string, points: number): RateLimiterPostgres {
  const known = limiters.get(prefix);
  if (known) return known;
  const fresh = new RateLimiterPostgres({
    storeClient: database(),
    storeType: "sequelize",
    tableName: "sign_in_limits",
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix: prefix,
    points,
    duration: WINDOW_SECONDS,
  });
  limiters.set(prefix, fresh);
  return fresh;
}

const limits = () => {
  const attempts = config().LIVERY_SIGN_IN_ATTEMPTS;
  return { account: limiter("account", attempts), address: limiter("address", attempts * 5) };
};

/**
 * Checks an account's password and opens a session; the token goes into the person's cookie and is
 * stored only as its SHA-256. Failures are limited by account and by address.
 */
export async function signIn(
  email: string,
  password: string,
  address: string,
): Promise<SignInResult> {
  const account = email.trim().toLowerCase();
  const { account: byAccount, address: byAddress } = limits();
  try {
    await byAddress.consume(address);
    await byAccount.consume(account);
  } catch (refusal) {
    if (!(refusal instanceof RateLimiterRes)) throw refusal;
    return {
      ok: false,
      code: "too-many",
      retryAfterSeconds: Math.ceil(refusal.msBeforeNext / 1000),
    };
  }
  const person = await Person.findOne({ where: { email: account } });
  const matches = await passwordMatches(person?.passwordHash ?? (await NOBODY), password);
  if (!person || !matches) {
    await inTransaction((tx) =>
      record(
        {
          person: person?.id ?? null,
          action: "sign-in-refused",
          subjectKind: "person",
          subjectId: person?.id ?? null,
          detail: { email: account.slice(0, 200), address },
        },
        tx,
      ),
    );
    return { ok: false, code: "refused" };
  }
  await Promise.all([byAccount.delete(account), byAddress.reward(address)]);
  return { ok: true, token: await openSession(person) };
}

async function openSession(person: Person): Promise<string> {
  const token = randomBytes(32).toString("base64url");
  await inTransaction(async (transaction) => {
    await Session.destroy({ where: { expiresAt: { [Op.lt]: new Date() } }, transaction });
    await Session.create(
      {
        tokenHash: sha256(token),
        personId: person.id,
        expiresAt: new Date(Date.now() + SESSION_SECONDS * 1000),
      },
      { transaction },
    );
    await record(
      {
        person: person.id,
        action: "signed-in",
        subjectKind: "person",
        subjectId: person.id,
        detail: {},
      },
      transaction,
    );
  });
  return token;
}

/** Who a session's token belongs to; null where it is unknown, revoked or run out. */
export async function personOf(token: string): Promise<SignedIn | null> {
  const session = await Session.findOne({
    where: { tokenHash: sha256(token), expiresAt: { [Op.gt]: new Date() } },
  });
  const person = session && (await Person.findByPk(session.personId));
  if (!person) return null;
  const { id, name, email, capability } = person;
  return { id, name, email, capability };
}

/** Revokes a session; a token that opens none is no error. */
export async function signOut(token: string): Promise<void> {
  await inTransaction(async (transaction) => {
    const session = await Session.findOne({ where: { tokenHash: sha256(token) }, transaction });
    if (!session) return;
    await session.destroy({ transaction });
    const { personId } = session;
    await record(
      {
        person: personId,
        action: "signed-out",
        subjectKind: "person",
        subjectId: personId,
        detail: {},
      },
      transaction,
    );
  });
}

const sha256 = (text: string): string => createHash("sha256").update(text).digest("hex");
