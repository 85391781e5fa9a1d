import { fileName } from "#core/text/file-name";

/** Kinds that a browser may show by itself; everything else is saved. */
const SHOWN = /^(?:image\/(?:png|jpe?g|gif|webp)|text\/plain|application\/pdf)$/;

/** A file for the browser, named in any script (RFC 6266, RFC 8187) as it is, kept from running as a page of ours. */
export function download(content: Buffer, given: string, contentType: string): Response {
  const name = fileName(given);
  const ascii = name.replace(/[^\x20-\x7e]|["\\]/g, "_");
  const kind = SHOWN.test(contentType) ? "inline" : "attachment";
  return new Response(new Uint8Array(content), {
    headers: {
      "Content-Type": contentType,
      "Content-Length": String(content.byteLength),
      "Content-Disposition": `${kind}; filename="${ascii}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      "Content-Security-Policy": "default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; sandbox",
      "Cache-Control": "no-store",
    },
  });
}
