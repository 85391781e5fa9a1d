import { z } from "zod";
import { arrive, leave } from "#server/answering/presence";
import { Case } from "#server/db/entities/cases";
import { entityManager } from "#server/db/orm";
import { onEvent } from "#server/events/hub";
import { log } from "#server/log";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/events";
import { told } from "#server/told";
import { idInPath } from "#server/edge";

const query = z.object({ case: idInPath.optional() });
const BEAT_MS = 15_000;

/** Server-sent events for open screens: of one case, and of the queue. Holding one open is being on the case. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const { viewer, em } = await signedIn({ request, context });
  const { sessionId } = context;
  const wanted = query.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const number = wanted.data?.case;
  const subject =
    number === undefined ? null : await em.findOne(Case, { number }, { fields: ["id", "number"] });
  const encoder = new TextEncoder();
  let close = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      const present = () => {
        if (!subject) return;
        entityManager()
          .then((fresh) => arrive(fresh, subject.id, subject.number, viewer.id))
          .catch((error: unknown) =>
            log.warn({
              event: "presence failed",
              error: told(error),
            }),
          );
      };
      const end = () => {
        close();
        controller.close();
      };
      const stopListening = onEvent((event) => {
        // Nothing more is told to a browser whose session has ended.
        if (event.kind === "session") {
          if (event.session === sessionId) end();
        } else if (event.case === null || event.case === number)
          write(`event: ${event.kind}\ndata: ${event.case ?? ""}\n\n`);
      });
      const timer = setInterval(() => {
        write(": still here\n\n");
        present();
      }, BEAT_MS);
      close = () => {
        close = () => {};
        clearInterval(timer);
        stopListening();
        if (subject) {
          entityManager()
            .then((fresh) => leave(fresh, subject.id, subject.number, viewer.id))
            .catch((error: unknown) =>
              log.warn({
                event: "presence failed",
                error: told(error),
              }),
            );
        }
      };
      write("retry: 2000\n\n");
      present();
      request.signal.addEventListener("abort", end);
    },
    cancel: () => close(),
  });
  return new Response(body, {
    headers: {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-cache, no-transform",
      "X-Accel-Buffering": "no",
    },
  });
}
