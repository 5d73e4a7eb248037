import { QueryTypes } from "sequelize";
import { decryptSecret, encryptSecret, SecretError } from "#server/auth/secrets.ts";
import { personOf, signIn, signOut } from "#server/auth/sign-in.ts";
import { database } from "#server/db/connection.ts";
import { Session } from "#server/db/models/index.ts";
import { closeDatabase, freshDemo } from "./system.ts";

beforeEach(freshDemo);
afterAll(closeDatabase);

const INES = ["ines@orrinsound.example", "tidewater-lantern"] as const;

test("a session is opened by the right password, known by its token, and gone once signed out", async () => {
  const result = await signIn(" Ines@OrrinSound.example", INES[1], "127.0.0.1");
  if (!result.ok) throw new Error(result.code);
  expect(await personOf(result.token)).toMatchObject({
    name: "Ines Varga",
    capability: "administrator",
  });
  const stored = await Session.findAll();
  expect(stored.map((s) => s.tokenHash)).not.toContain(result.token);
  await signOut(result.token);
  expect(await personOf(result.token)).toBeNull();
});

test("a session that has run out opens nothing", async () => {
  const result = await signIn(...INES, "127.0.0.1");
  if (!result.ok) throw new Error(result.code);
  await Session.update({ expiresAt: new Date(Date.now() - 1000) }, { where: {} });
  expect(await personOf(result.token)).toBeNull();
});

test("wrong passwords and unknown accounts are refused alike, and limited", async () => {
  expect(await signIn("nobody@orrinsound.example", "x", "127.0.0.2")).toEqual({
    ok: false,
    code: "refused",
  });
  for (let i = 0; i < 8; i++)
    expect(await signIn(INES[0], "wrong", "127.0.0.1")).toEqual({ ok: false, code: "refused" });
  const limited = await signIn(...INES, "127.0.0.1");
  expect(limited).toMatchObject({ ok: false, code: "too-many" });
  expect(await signIn("ros@orrinsound.example", "gull-window", "127.0.0.1")).toMatchObject({
    ok: true,
  });
});

test("passwords and credentials stand in the database only as hashes and ciphertext", async () => {
  const dump = JSON.stringify([
    await database().query("SELECT * FROM people", { type: QueryTypes.SELECT }),
    await database().query("SELECT * FROM connections", { type: QueryTypes.SELECT }),
    await database().query("SELECT * FROM audit_entries", { type: QueryTypes.SELECT }),
  ]);
  expect(dump).toContain("$argon2id$");
  expect(dump).not.toContain("slack-water-42");
  expect(dump).not.toContain(INES[1]);
});

test("a credential reads back with its key only, and not when tampered with", () => {
  const stored = encryptSecret("slack-water-42");
  expect(decryptSecret(stored)).toBe("slack-water-42");
  expect(encryptSecret("slack-water-42")).not.toBe(stored);
  expect(() => decryptSecret(`${stored.slice(0, -2)}AA`)).toThrow(SecretError);
});
