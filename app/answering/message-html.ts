import { z } from "zod";
import { attachedFile, messageHtml } from "#server/cases/conversation";
import { sanitiseMessage } from "#server/cases/sanitise";
import { answering } from "#server/web/answers";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/message-html";
import { idInPath } from "#server/edge";

const params = z.object({ id: idInPath });
const PAGE_STYLE =
  "body{margin:0;font:15px/1.5 Georgia,serif;color:#17211d;background:#fff;overflow-wrap:anywhere}img{max-width:100%;height:auto}";

/** An inbound message's HTML, cleaned, for a sandboxed frame. Remote pictures only with ?pictures=remote. */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const remote = new URL(args.request.url).searchParams.get("pictures") === "remote";
  const page = await answering(async () => {
    const { id } = params.parse(args.params);
    const { html, files } = await messageHtml(em, id);
    const pictures = new Map<string, string>();
    for (const file of files) {
      const { content, contentType } = await attachedFile(em, viewer.id, file.id);
      if (/^image\/(?:png|jpe?g|gif|webp)$/.test(contentType))
        pictures.set(file.contentId, `data:${contentType};base64,${content.toString("base64")}`);
    }
    return sanitiseMessage(html, pictures, remote);
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
