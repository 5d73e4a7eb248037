import type { RequestHandler, Response } from "express";

/** What the browser may load and run: our own files, and scripts that carry this answer's nonce. */
export function securityHeaders(response: Response, nonce: string): void {
  response.set({
    "content-security-policy": [
      "default-src 'self'",
      `script-src 'self' 'nonce-${nonce}'`,
      `style-src 'self' 'nonce-${nonce}'`,
      "style-src-attr 'unsafe-inline'",
      "img-src 'self' data:",
      "object-src 'none'",
      "base-uri 'none'",
      "form-action 'self'",
      "frame-ancestors 'self'",
    ].join("; "),
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
    "cross-origin-opener-policy": "same-origin",
    "permissions-policy": "camera=(), microphone=(), geolocation=()",
  });
}

const SAFE = new Set(["GET", "HEAD", "OPTIONS"]);

/**
 * Refuses whatever changes something and was sent from another site's page. Browsers say where a
 * request comes from in Sec-Fetch-Site and Origin; one that says neither is no browser's and
 * carries no cookie of ours by accident.
 */
export function refuseCrossSite(host: string): RequestHandler {
  return (request, response, next) => {
    if (SAFE.has(request.method)) return next();
    const site = request.headers["sec-fetch-site"];
    const { origin } = request.headers;
    const foreignSite = site !== undefined && site !== "same-origin" && site !== "none";
    const foreignOrigin = origin !== undefined && !isOurs(origin, [host, request.headers.host]);
    if (!foreignSite && !foreignOrigin) return next();
    response.status(403).type("text").send("Refused: this request came from another site's page.");
  };
}

function isOurs(origin: string, hosts: (string | undefined)[]): boolean {
  try {
    return hosts.includes(new URL(origin).host);
  } catch {
    return false;
  }
}
