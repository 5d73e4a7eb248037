import { useId } from "react";
import type { Stripe as StripeColours } from "#core/theme/stripe.ts";
import { STRIPE_BANDS } from "#core/theme/stripe.ts";

const WIDTH = 64;
const HEIGHT = 24;

interface StripeProps {
  colours: StripeColours;
  className?: string;
}

/**
 * A theme's stripe: its colours as bands, cut diagonally into a light half and a dark half. It
 * always stands beside the theme's name, so it has none of its own.
 */
export function Stripe({ colours, className = "h-6 w-16" }: StripeProps) {
  const clip = useId();
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      className={`shrink-0 rounded-sm border border-edge [forced-color-adjust:none] ${className}`}
      aria-hidden="true"
    >
      <clipPath id={clip}>
        <path d={`M${WIDTH} 0V${HEIGHT}H0z`} />
      </clipPath>
      <Bands colours={colours.light} />
      <g clipPath={`url(#${clip})`}>
        <Bands colours={colours.dark} />
      </g>
    </svg>
  );
}

function Bands({ colours }: { colours: readonly string[] }) {
  let x = 0;
  return STRIPE_BANDS.map(({ role, width }, i) => {
    const band = <rect key={role} x={x} width={width + 0.5} height={HEIGHT} fill={colours[i]} />;
    x += width;
    return band;
  });
}
