/** Everything that the log records. */
export const AUDIT_ACTIONS = [
  "signed-in",
  "signed-out",
  "sign-in-refused",
  "theme-created",
  "theme-archived",
  "theme-taken-out",
  "draft-saved",
  "draft-save-refused",
  "release-made",
  "delivery-requested",
  "delivery-finished",
  "delivery-failed",
  "credential-changed",
  "policy-changed",
  "waiver-granted",
  "waiver-withdrawn",
] as const;
export type AuditAction = (typeof AUDIT_ACTIONS)[number];
