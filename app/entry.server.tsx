import {
  isRouteErrorResponse,
  ServerRouter,
  type AppLoadContext,
  type EntryContext,
  type HandleErrorFunction,
} from "react-router";
import { log } from "#server/log";
import { framesOf, loggable } from "#server/told";
import { pageResponse } from "./page-response";

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  { nonce }: AppLoadContext,
): Promise<Response> {
  return pageResponse(<ServerRouter context={routerContext} url={request.url} nonce={nonce} />, {
    status,
    headers,
    nonce,
    onError: (error) => log.error({ event: "rendering failed", error: loggable(error) }),
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
