import { randomBytes } from "node:crypto";
import type { NextFunction, Request, RequestHandler, Response } from "express";
import type { Faults } from "./faults.ts";

export interface Account {
  password: string;
  rights: string[];
}

/** How long a token lasts, in milliseconds. */
const TOKEN_LIFE = 10 * 60 * 1000;

interface Token {
  scope: string;
  rights: string[];
  until: number;
}

/** Sign-in with an account's password for a short-lived token. */
export class Access {
  readonly #tokens = new Map<string, Token>();
  /** How often an account was tried with a wrong password: real platforms lock it then. */
  wrong = 0;

  constructor(private readonly faults: Faults) {}

  /** Answers a sign-in; accounts are those of the scope. */
  signIn(request: Request, response: Response, scope: string, accounts: Record<string, Account>) {
    const { account, password } = (request.body ?? {}) as { account?: string; password?: string };
    const known = accounts[account ?? ""];
    if (!known || known.password !== password || this.faults.settings.rejectCredentials) {
      this.wrong++;
      return refuse(response, 401, "account or password");
    }
    const token = randomBytes(18).toString("base64url");
    const life = this.faults.settings.expireTokens ? 0 : TOKEN_LIFE;
    this.#tokens.set(token, { scope, rights: known.rights, until: Date.now() + life });
    response.json({ token, rights: known.rights, lifeSeconds: TOKEN_LIFE / 1000 });
  }

  /** Lets pass who carries a token of the scope. Tokens run out while `expireTokens` is on. */
  requires(scopeOf: (request: Request) => string): RequestHandler {
    return (request, response, next) => {
      const token = this.#tokens.get(request.headers.authorization?.replace("Bearer ", "") ?? "");
      const { rejectCredentials, expireTokens } = this.faults.settings;
      const counts = token && token.scope === scopeOf(request) && token.until >= Date.now();
      if (!counts || rejectCredentials || expireTokens) return refuse(response, 401, "token");
      response.locals.rights = token.rights;
      next();
    };
  }
}

export function needsPublish(_request: Request, response: Response, next: NextFunction): void {
  if ((response.locals.rights as string[]).includes("publish")) next();
  else refuse(response, 403, "publish");
}

export function refuse(response: Response, status: number, what: string): void {
  response.status(status).json({ refused: what });
}
