import { DEFAULT_POLICY, type Policy } from "#core/contrast/policy.ts";
import { record } from "../audit/audit.ts";
import { inTransaction } from "../db/connection.ts";
import { PolicyRow } from "../db/models/index.ts";
import type { PersonId } from "../ids.ts";

/** What the organisation asks of its themes; the default until somebody changed it. */
export async function readPolicy(): Promise<Policy> {
  const row = await PolicyRow.findByPk(1);
  if (!row) return DEFAULT_POLICY;
  const { conformance, shortfall, waivers } = row;
  return { conformance, shortfall, waivers };
}

/** Changes what the organisation asks. Releases that were made before stay as they are. */
export async function changePolicy(policy: Policy, person: PersonId): Promise<void> {
  await inTransaction(async (transaction) => {
    await PolicyRow.upsert(
      { id: 1, ...policy, changedBy: person, changedAt: new Date() },
      { transaction },
    );
    await record(
      {
        person,
        action: "policy-changed",
        subjectKind: "policy",
        subjectId: null,
        detail: { ...policy },
      },
      transaction,
    );
  });
}
