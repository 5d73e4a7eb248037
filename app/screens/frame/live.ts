import { onChange } from "#server/live/changes.ts";
import { signedIn } from "../../session.ts";
import type { Route } from "./+types/live";

const BEAT_MS = 20_000;

/** Server-sent events: `change` with the identifier of a place where something happened. */
export async function loader({ request }: Route.LoaderArgs) {
  await signedIn(request);
  const encoder = new TextEncoder();
  let end = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      send("retry: 2000\n\n");
      const off = onChange((place) => send(`event: change\ndata: ${place}\n\n`));
      const beat = setInterval(() => send(": still here\n\n"), BEAT_MS);
      end = () => {
        off();
        clearInterval(beat);
      };
      request.signal.addEventListener("abort", () => end());
    },
    cancel: () => end(),
  });
  return new Response(body, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store" },
  });
}
