import { z } from "zod";
import { attachedFile, messageHtml } from "#server/cases/conversation";
import { cleanMessage } from "#server/cases/clean";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/message-html";
import { idInPath } from "#server/edge";
import { t } from "../../words/answering";

const params = z.object({ id: idInPath });
const PAGE_STYLE =
  "body{margin:0;font:15px/1.5 Georgia,serif;color:#17211d;background:#fff;overflow-wrap:anywhere}img{max-width:100%;height:auto}";

/** Pictures of a message that are shown in it, in bytes. */
const MOST_PICTURES = 10 * 1024 * 1024;

/** An inbound message's HTML, cleaned, for a sandboxed frame. Remote pictures only with ?pictures=remote. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const remote = new URL(args.request.url).searchParams.get("pictures") === "remote";
  const page = await loaderResult(async () => {
    const { id } = params.parse(args.params);
    const { html, files } = await messageHtml(em, id);
    const pictures = new Map<string, string>();
    let bytes = 0;
    for (const file of files) {
      bytes += file.size;
      // What is too much for one page stays among the message's files.
      if (bytes > MOST_PICTURES) break;
      const { content, contentType } = await attachedFile(em, viewer.id, file.id);
      if (/^image\/(?:png|jpe?g|gif|webp)$/.test(contentType))
        pictures.set(file.contentId, `data:${contentType};base64,${content.toString("base64")}`);
    }
    const cleaned = await cleanMessage(html, pictures, remote);
    return cleaned ?? { html: `<p>${t("tooMuchToBeShown")}</p>`, blocked: 0 };
  });
  const body = `<!DOCTYPE html><html><head><meta charset="utf-8"><style>${PAGE_STYLE}</style></head><body>${page.html}</body></html>`;
  return new Response(body, {
    headers: {
      "Content-Type": "text/html; charset=utf-8",
      "X-Blocked-Pictures": String(page.blocked),
      "Referrer-Policy": "no-referrer",
      "Content-Security-Policy": `default-src 'none'; img-src data:${remote ? " http: https:" : ""}; style-src 'unsafe-inline'; frame-ancestors 'self'; sandbox allow-popups allow-popups-to-escape-sandbox allow-same-origin`,
    },
  });
}
