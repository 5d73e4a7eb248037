import type { AuditAction } from "#server/audit/actions.ts";

export const ACTION_WORDS: Record<AuditAction, string> = {
  "signed-in": "signed in",
  "signed-out": "signed out",
  "sign-in-refused": "sign-in refused",
  "theme-created": "made a theme",
  "theme-archived": "put a theme away",
  "theme-taken-out": "took a theme out again",
  "draft-saved": "saved a draft",
  "draft-save-refused": "draft kept aside, a newer one was there",
  "release-made": "released a theme",
  "delivery-requested": "asked for a delivery",
  "delivery-finished": "delivery confirmed",
  "delivery-failed": "delivery failed",
  "credential-changed": "changed a platform's account",
  "policy-changed": "changed the policy",
  "waiver-granted": "accepted a finding for a time",
  "waiver-withdrawn": "took an acceptance back",
};
