import { index, layout, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  route("sign-in", "account/sign-in.tsx"),
  route("sign-out", "account/sign-out.ts"),
  route("events", "ui/events.ts"),
  route("messages/:id/html", "answering/message-html.ts"),
  route("messages/:id/raw", "answering/message-raw.ts"),
  route("messages/:id/call-back", "answering/call-back.ts"),
  route("messages/:id/try-again", "answering/try-again.ts"),
  route("files/:id", "answering/file.ts"),
  route("library-files/:id", "answering/library-file.ts"),
  route("cases/:number/draft", "answering/draft.ts"),
  route("cases/:number/send", "answering/send.ts"),
  route("cases/:number/strip", "answering/strip-search.ts"),
  route("cases/:number/files", "answering/draft-files.ts"),
  route("outside/messages/:id/html", "outside/message-html.ts"),
  route("outside/messages/:id/attachments/:index", "outside/attachment.ts"),
  layout("ui/desk.tsx", [
    index("waiting/home.ts"),
    route("waiting", "waiting/route.tsx"),
    route("cases/:number", "answering/route.tsx"),
    route("outside", "outside/route.tsx", [
      index("outside/nobody.tsx"),
      route(":address", "outside/mailbox.tsx"),
      route(":address/:id", "outside/message.tsx"),
    ]),
    route("keys", "account/keys.tsx"),
    route("*", "ui/nowhere.tsx"),
  ]),
] satisfies RouteConfig;
