import { outsideAttachment, outsideMail } from "#server/outside/mailboxes";
import { loaderResult } from "#server/web/results";
import { signedIn } from "#server/web/context";
import type { Route } from "./+types/message-html";

/**
 * The delivered HTML as it is, for a sandboxed frame. Pictures of the message are put into the page:
 * a sandboxed frame has no origin, and so could not fetch them.
 */
export async function loader(args: Route.LoaderArgs) {
  const { viewer, em } = await signedIn(args);
  const { id } = args.params;
  const html = await loaderResult(async () => {
    const mail = await outsideMail(em, viewer, id);
    let page = mail.html ?? "";
    for (const [index, file] of mail.attachments.entries()) {
      if (file.contentId === null || !page.includes(`cid:${file.contentId}`)) continue;
      const bytes = Buffer.from(await (await outsideAttachment(em, viewer, id, index)).arrayBuffer());
      page = page.replaceAll(
        `cid:${file.contentId}`,
        `data:${file.contentType};base64,${bytes.toString("base64")}`,
      );
    }
    return page;
  });
  return new Response(html, {
    headers: {
      "Content-Type": "text/html; charset=utf-8",
      "Content-Security-Policy":
        "default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'self'; sandbox",
    },
  });
}
