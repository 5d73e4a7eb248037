import type { ThemeDocument } from "#core/theme/document.ts";
import { type Stripe, stripeOf } from "#core/theme/stripe.ts";
import { computeTheme } from "#core/theme/theme.ts";

const MOST_KEPT = 500;
const kept = new Map<string, Stripe>();

/** A document's stripe; the last few hundred are kept, since lists show the same ones again. */
export function stripeOfDocument(document: ThemeDocument): Stripe {
  const key = JSON.stringify(document);
  const known = kept.get(key);
  if (known) return known;
  const stripe = stripeOf(computeTheme(document));
  if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value as string);
  kept.set(key, stripe);
  return stripe;
}
