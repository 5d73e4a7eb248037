import { randomBytes } from "node:crypto";
import { createServer } from "node:http";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import type { BrotliOptions } from "node:zlib";
import { createRequestHandler } from "@react-router/express";
import compression from "compression";
import express from "express";
import type { ServerBuild } from "react-router";
import { config } from "#server/config.ts";
import { followChanges, serveStylesheet } from "#server/hosted/serve.ts";
import { runUntilStopped } from "#server/process.ts";
import { refuseCrossSite, securityHeaders } from "./web-security.ts";

/** The web server: the built application behind its security headers. */
const BUILD = join(dirname(fileURLToPath(import.meta.url)), "../app");
/** Larger than any page, in bytes. */
const PAGE_BYTES = 4 * 1024 * 1024;

async function startWeb(): Promise<() => Promise<void>> {
  const { PORT, HOST, LIVERY_ORIGIN } = config();
  const build = (await import(
    pathToFileURL(join(BUILD, "server/index.js")).href
  )) as unknown as ServerBuild;
  const app = express();
  app.disable("x-powered-by");
  app.use(
    compression({
      // A page comes in many small pieces, each flushed; room for them all keeps the flushes from
      // queueing up behind each other.
      writableHighWaterMark: PAGE_BYTES,
      brotli: { writableHighWaterMark: PAGE_BYTES } as BrotliOptions,
      filter: (request, response) =>
        !String(response.getHeader("content-type")).startsWith("text/event-stream") &&
        compression.filter(request, response),
    }),
  );
  app.use(
    "/assets",
    express.static(join(BUILD, "client/assets"), {
      immutable: true,
      maxAge: "1y",
      fallthrough: false,
    }),
  );
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    securityHeaders(response, response.locals.nonce as string);
    next();
  });
  app.use(express.static(join(BUILD, "client"), { index: false, maxAge: "1h" }));
  app.use(refuseCrossSite(new URL(LIVERY_ORIGIN).host));
  app.use(
    createRequestHandler({
      build,
      mode: "production",
      getLoadContext: (request, response) => ({
        nonce: response.locals.nonce as string,
        address: request.socket.remoteAddress ?? "",
      }),
    }),
  );
  const unfollow = followChanges();
  const server = createServer((request, response) => {
    if (!serveStylesheet(request, response)) app(request, response);
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", (error: NodeJS.ErrnoException) =>
      reject(
        error.code === "EADDRINUSE"
          ? new Error(`port ${PORT} is taken. Stop the program that holds it, or set another.`)
          : error,
      ),
    );
    server.listen(PORT, HOST, resolve);
  });
  return async () => {
    unfollow();
    server.close();
    server.closeAllConnections();
  };
}

runUntilStopped(startWeb);
