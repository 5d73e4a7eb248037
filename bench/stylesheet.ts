import { mkdtempSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import autocannon, { type Result } from "autocannon";
import { closeDatabase, database } from "#server/db/connection.ts";
import { Place } from "#server/db/models/index.ts";

/**
 * Requests a second and the 99th percentile of the hosted stylesheet, beside sirv, a plain static
 * file server, with the very same bytes in a process thread of its own, in the same run.
 */
const ORIGIN = process.env.LIVERY_ADDRESS ?? "";
const SECONDS = 8;
const CONNECTIONS = 40;

database();
while (!(await Place.findOne({ where: { slug: "ticket-office" } }))?.liveReleaseId)
  await new Promise((resolve) => setTimeout(resolve, 200));
await closeDatabase();
const hosted = `${ORIGIN}/t/ticket-office/theme.css`;
const css = Buffer.from(await (await fetch(hosted)).arrayBuffer());
const folder = mkdtempSync(join(tmpdir(), "livery-static-"));
writeFileSync(join(folder, "theme.css"), css);
writeFileSync(join(folder, "theme.css.gz"), gzipSync(css, { level: 9 }));
writeFileSync(
  join(folder, "theme.css.br"),
  brotliCompressSync(css, {
    params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY },
  }),
);

const port = await freePort();
const baseline = new Worker(
  `const { createServer } = require("node:http"); const { workerData, parentPort } = require("node:worker_threads");
   import("sirv").then(({ default: sirv }) => {
     const files = sirv(workerData.folder, { dev: false, etag: true, brotli: true, gzip: true, maxAge: 5 });
     createServer((q, s) => files(q, s)).listen(workerData.port, "127.0.0.1", () => parentPort.postMessage("ready"));
   });`,
  { eval: true, workerData: { folder, port } },
);
await new Promise((resolve) => baseline.once("message", resolve));
const plain = `http://127.0.0.1:${port}/theme.css`;

const line = (name: string, value: string) => console.log(`${name.padEnd(52)} ${value}`);
const load = (url: string, headers: Record<string, string>): Promise<Result> =>
  autocannon({ url, headers, connections: CONNECTIONS, duration: SECONDS });
const etagOf = async (url: string) =>
  (await fetch(url, { headers: { "accept-encoding": "br" } })).headers.get("etag") ?? "";

async function compare(name: string, of: (url: string) => Promise<Record<string, string>>) {
  const results: Result[] = [];
  for (const url of [plain, hosted, plain, hosted]) results.push(await load(url, await of(url)));
  const best = (i: number, j: number) => {
    const [a, b] = [results[i], results[j]] as [Result, Result];
    return a.requests.average > b.requests.average ? a : b;
  };
  const [base, ours] = [best(0, 2), best(1, 3)];
  const words = (r: Result) =>
    `${r.requests.average.toFixed(0)} requests/s, p99 ${r.latency.p99} ms`;
  line(`${name}: baseline sirv`, words(base));
  line(`${name}: hosted stylesheet`, words(ours));
  line(`${name}: hosted over baseline`, (ours.requests.average / base.requests.average).toFixed(2));
}

line("bytes, as Brotli", `${css.length}, ${brotliCompressSync(css).length}`);
await compare("whole file", async () => ({ "accept-encoding": "br" }));
await compare("not modified (304)", async (url) => ({
  "accept-encoding": "br",
  "if-none-match": await etagOf(url),
}));
await baseline.terminate();

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}
