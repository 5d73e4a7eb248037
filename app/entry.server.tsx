import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import {
  type AppLoadContext,
  type EntryContext,
  isRouteErrorResponse,
  ServerRouter,
} from "react-router";
import { database } from "#server/db/connection.ts";
import { log } from "#server/log.ts";

// Models must be defined before the first request, whichever it is.
database();

export const streamTimeout = 5000;

/** Renders a page; every script in it carries the nonce that this answer's policy allows. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  router: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
  const ready = isbot(request.headers.get("user-agent")) ? "onAllReady" : "onShellReady";
  return new Promise((resolve, reject) => {
    let code = status;
    const { pipe, abort } = renderToPipeableStream(
      <ServerRouter context={router} url={request.url} nonce={nonce} />,
      {
        nonce,
        [ready]() {
          const body = new PassThrough();
          headers.set("content-type", "text/html; charset=utf-8");
          headers.set("cache-control", "no-store");
          pipe(body);
          resolve(new Response(createReadableStreamFromReadable(body), { status: code, headers }));
        },
        onShellError: reject,
        onError(error: unknown) {
          code = 500;
          log.error({ err: error }, "rendering failed");
        },
      },
    );
    setTimeout(abort, streamTimeout + 1000).unref();
  });
}

/** Faults of ours go to the log; the browser gets a page without their text. */
export function handleError(error: unknown, { request }: { request: Request }): void {
  if (request.signal.aborted || (isRouteErrorResponse(error) && error.status < 500)) return;
  log.error({ err: error, path: new URL(request.url).pathname }, "request failed");
}
