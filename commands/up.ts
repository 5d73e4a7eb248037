import { buildAll } from "./build.ts";
import { startAll } from "./processes.ts";
import { homeOf, readUpSettings, requireFreePorts } from "./settings.ts";
import { requirePostgres } from "./system.ts";
import { say } from "./trouble.ts";

/** Runs Livery with its demo until it is stopped. */
export async function up(root: string, rest: string[]): Promise<number> {
  const { ports, fleet } = readUpSettings(rest);
  await requireFreePorts(ports);
  requirePostgres();
  await buildAll(root);
  let end: (status: number) => void = () => undefined;
  const ended = new Promise<number>((resolve) => {
    end = resolve;
  });
  process.on("SIGINT", () => end(0));
  process.on("SIGTERM", () => end(0));
  process.on("SIGHUP", () => end(0));
  const running = await startAll({
    root,
    home: homeOf(root),
    ports,
    durable: true,
    env: { LIVERY_FLEET: String(fleet) },
    onGivenUp: (reason) => {
      say(reason);
      end(1);
    },
  });
  console.log(welcome(running.address, `${running.standins}/commons/orrin-sound-ferries/quayside`));
  const status = await ended;
  say("stopping …");
  await running.stop();
  return status;
}

const welcome = (address: string, page: string): string => `
  Livery is ready:  ${address}

  Sign in as an administrator   ines@orrinsound.example    tidewater-lantern
       another administrator    tomas@orrinsound.example   mooring-copper
       somebody who only reads  ros@orrinsound.example     gull-window

  The intranet it delivers to:  ${page}

  Ctrl+C stops everything.
`;
