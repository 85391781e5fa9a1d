import { PassThrough, Readable, Writable } from "node:stream";
import type { ReactNode } from "react";
import { renderToPipeableStream } from "react-dom/server";

const ABORT_MS = 10_000;
/** What comes later than the rest of a page is waited for so long. */
const WHOLE_MS = 50;

interface Page {
  status: number;
  headers: Headers;
  /** For the scripts that a page brings (Content-Security-Policy). */
  nonce: string;
  /** Told of what could not be rendered; the response is a 500 then, unless it is on its way. */
  onError: (error: unknown) => void;
}

/**
 * Renders a page whole, and sends it in one piece: mostly everything is there when rendering begins, and one piece is a
 * tenth cheaper than a stream of them. What takes longer follows the rest of the page in a stream, for ten seconds at most.
 * @returns rejects where nothing of the page can be rendered
 */
export function pageResponse(page: ReactNode, { status, headers, nonce, onError }: Page): Promise<Response> {
  return new Promise((resolve, reject) => {
    let code = status;
    let patience: NodeJS.Timeout | undefined;
    const respond = (body: BodyInit) => {
      headers.set("Content-Type", "text/html; charset=utf-8");
      resolve(new Response(body, { headers, status: code }));
    };
    const inOnePiece = () => {
      const pieces: Uint8Array[] = [];
      pipe(
        new Writable({
          write(piece: Uint8Array, _encoding, written) {
            pieces.push(piece);
            written();
          },
          final(written) {
            respond(Buffer.concat(pieces));
            written();
          },
        }),
      );
    };
    const inPieces = () => {
      patience = undefined;
      const body = new PassThrough();
      respond(Readable.toWeb(body) as ReadableStream);
      pipe(body);
    };
    const { pipe, abort } = renderToPipeableStream(page, {
      nonce,
      // Large parts stand in the page where they belong, not behind it with a script that moves them.
      progressiveChunkSize: Number.POSITIVE_INFINITY,
      onShellReady() {
        patience = setTimeout(inPieces, WHOLE_MS);
      },
      onAllReady() {
        clearTimeout(late);
        // Else it is on its way in pieces already.
        if (patience === undefined) return;
        clearTimeout(patience);
        inOnePiece();
      },
      onShellError(error) {
        clearTimeout(late);
        reject(error instanceof Error ? error : new Error("The page could not be rendered"));
      },
      onError(error) {
        code = 500;
        onError(error);
      },
    });
    const late = setTimeout(abort, ABORT_MS).unref();
  });
}
