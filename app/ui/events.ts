import { z } from "zod";
import { arrive, leave } from "#server/answering/presence";
import { Case } from "#server/db/entities/cases";
import { entityManager } from "#server/db/orm";
import { rowChangedBy } from "#server/cases/changed";
import { onEvent } from "#server/events/hub";
import type { LiveEvent } from "#server/events/notify";
import { log } from "#server/log";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/events";
import { loggable } from "#server/told";
import { idInPath } from "#server/edge";

const query = z.object({
  /** A case that is open. */
  case: idInPath.optional(),
  /** A list of cases is open. */
  list: z.literal("1").optional(),
  /** The viewer’s chats are open. */
  chats: z.literal("1").optional(),
});
const BEAT_MS = 15_000;

/**
 * Server-sent events for open screens: of one case, of the queue (with the row that changed), of the shelves. Each screen
 * hears of what it shows. Holding one open is being on the case.
 */
export async function loader({ request, context }: Route.LoaderArgs) {
  const { viewer, em } = await signedIn({ request, context });
  const { sessionId } = context;
  const wanted = query.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const number = wanted.data?.case;
  const isChats = wanted.data?.chats !== undefined;
  const isList = wanted.data?.list !== undefined;
  const subject =
    number === undefined ? null : await em.findOne(Case, { number }, { fields: ["id", "number"] });
  const encoder = new TextEncoder();
  let close = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      let isOpen = true;
      const write = (text: string) => {
        if (isOpen) controller.enqueue(encoder.encode(text));
      };
      const present = () => {
        if (!subject) return;
        entityManager()
          .then((fresh) => arrive(fresh, subject.id, subject.number, viewer.id))
          .catch((error: unknown) =>
            log.warn({
              event: "presence failed",
              error: loggable(error),
            }),
          );
      };
      const end = () => {
        close();
        controller.close();
      };
      const tellRow = (event: LiveEvent) => {
        rowChangedBy(event).then(
          // Without a row anything may have changed: the list is loaded anew.
          (row) => write(row ? `event: row\ndata: ${JSON.stringify(row)}\n\n` : "event: queue\ndata:\n\n"),
          (error: unknown) => log.warn({ event: "changed case not read", error: loggable(error) }),
        );
      };
      const stopListening = onEvent((event) => {
        // Nothing more is told to a browser whose session has ended.
        if (event.kind === "session") {
          if (event.session === sessionId) end();
        } else if (event.kind === "note") {
          if (event.person === viewer.id) write("event: note\ndata:\n\n");
        } else if (event.kind === "chat") {
          if (isChats) write(`event: chat\ndata: ${JSON.stringify(event)}\n\n`);
        } else if (event.kind === "queue") {
          if (isList) tellRow(event);
          else if (isChats && event.changed === undefined) write("event: queue\ndata:\n\n");
        } else if (event.case === null || event.case === number) {
          write(`event: ${event.kind}\ndata: ${event.case ?? ""}\n\n`);
        }
      });
      const timer = setInterval(() => {
        write(": still here\n\n");
        present();
      }, BEAT_MS);
      close = () => {
        close = () => {};
        isOpen = false;
        clearInterval(timer);
        stopListening();
        if (subject) {
          entityManager()
            .then((fresh) => leave(fresh, subject.id, subject.number, viewer.id))
            .catch((error: unknown) =>
              log.warn({
                event: "presence failed",
                error: loggable(error),
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
