import { PassThrough, Readable, Writable } from "node:stream";
import { renderToPipeableStream } from "react-dom/server";
import {
  isRouteErrorResponse,
  ServerRouter,
  type AppLoadContext,
  type EntryContext,
  type HandleErrorFunction,
} from "react-router";
import { log } from "#server/log";
import { framesOf, loggable } from "#server/told";

const ABORT_MS = 10_000;
/** What comes later than the rest of a page is waited for so long. */
const WHOLE_MS = 50;

/**
 * Renders a page whole, and sends it in one piece: mostly everything is there when rendering begins, and one piece is a
 * tenth cheaper than a stream of them. What takes longer follows the rest of the page in a stream.
 */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
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
    const { pipe, abort } = renderToPipeableStream(
      <ServerRouter context={routerContext} url={request.url} nonce={nonce} />,
      {
        nonce,
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
          log.error({
            event: "rendering failed",
            error: loggable(error),
          });
        },
      },
    );
    const late = setTimeout(abort, ABORT_MS).unref();
  });
}

export const handleError: HandleErrorFunction = (error, { request }) => {
  if (request.signal.aborted || isRouteErrorResponse(error)) return;
  log.error({
    event: "request failed",
    path: new URL(request.url).pathname,
    error: loggable(error),
    stack: framesOf(error),
  });
};
