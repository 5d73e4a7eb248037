import { clusterIn, createDatabase, initCluster, startServer } from "./postgres.ts";
import { Trouble } from "./trouble.ts";

/**
 * Holds one PostgreSQL server for as long as the process that started this one lives: the server
 * goes when it is told to, and when its starter is gone, however that went.
 * Arguments: home, bin, port, `durable` or `scratch`. The password comes by environment.
 */
const [home = "", bin = "", port = "", kind = ""] = process.argv.slice(2);
const password = process.env.LIVERY_DATABASE_PASSWORD ?? "";

async function main(): Promise<void> {
  const cluster = clusterIn(home, bin);
  initCluster(cluster, password);
  let ended = false;
  const server = await startServer(cluster, Number(port), { durable: kind === "durable" });
  server.on("exit", (code) => process.exit(ended ? 0 : (code ?? 1)));
  const end = () => {
    if (ended) return;
    ended = true;
    server.kill("SIGINT");
    setTimeout(() => server.kill("SIGQUIT"), 5000).unref();
  };
  process.on("SIGTERM", end);
  process.on("SIGINT", end);
  process.on("disconnect", end);
  await createDatabase(Number(port), password);
  process.send?.({ ready: true });
}

main().catch((error: unknown) => {
  process.send?.({ failed: error instanceof Trouble ? error.message : String(error) }, () =>
    process.exit(1),
  );
});
