import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { renderToPipeableStream } from "react-dom/server";
import {
  isRouteErrorResponse,
  ServerRouter,
  type AppLoadContext,
  type EntryContext,
  type HandleErrorFunction,
} from "react-router";
import { log } from "#server/log";
import { framesOf, told } from "#server/told";

const ABORT_MS = 10_000;

/** Renders a page as a stream; the head goes out at once. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    let code = status;
    const { pipe, abort } = renderToPipeableStream(
      <ServerRouter context={routerContext} url={request.url} nonce={nonce} />,
      {
        nonce,
        onShellReady() {
          const body = new PassThrough();
          headers.set("Content-Type", "text/html; charset=utf-8");
          resolve(new Response(createReadableStreamFromReadable(body), { headers, status: code }));
          pipe(body);
        },
        onShellError: reject,
        onError(error) {
          code = 500;
          log.error({
            event: "rendering failed",
            error: told(error),
          });
        },
      },
    );
    setTimeout(abort, ABORT_MS).unref();
  });
}

export const handleError: HandleErrorFunction = (error, { request }) => {
  if (request.signal.aborted || isRouteErrorResponse(error)) return;
  log.error({
    event: "request failed",
    path: new URL(request.url).pathname,
    error: told(error),
    stack: framesOf(error),
  });
};
