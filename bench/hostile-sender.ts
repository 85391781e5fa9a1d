import { createConnection } from "node:net";

/** Sends generated messages to a port, each when its parent asks for it, and says what came of it. */
const port = Number(process.argv[2]);
let count = 0;

const fill = (unit: string, bytes: number) => unit.repeat(Math.max(1, Math.floor(bytes / unit.length)));
const headers = (extra: string[] = []) => {
  count += 1;
  return [
    `From: Hostile ${count} <hostile${count}@example.net>`,
    "To: desk@example.com",
    `Subject: hostile ${count}`,
    "MIME-Version: 1.0",
    ...extra,
  ].join("\r\n");
};
const html = (body: string) => `${headers(["Content-Type: text/html; charset=utf-8"])}\r\n\r\n${body}`;
const text = (body: string, kind = "text/plain; charset=utf-8") =>
  `${headers([`Content-Type: ${kind}`])}\r\n\r\n${body}`;

const shapes: Record<string, (bytes: number) => string> = {
  plain: (bytes) => text(fill("When does the boat sail from Tarn Head to Pellick?\r\n", bytes)),
  quotes: (bytes) => text(fill("> a\r\nb\r\n", bytes)),
  oneLine: (bytes) => text(fill("AAA-", bytes)),
  styles: (bytes) => html(fill(`<p style="margin:${"1 ".repeat(900)}">x</p>\r\n`, bytes)),
  deep: (bytes) => html(fill("<div>\r\n", bytes)),
  tables: (bytes) => html(fill("<table><tr><td>\r\n", bytes)),
  parts: (bytes) =>
    `${headers(['Content-Type: multipart/mixed; boundary="b"'])}\r\n\r\n${fill("--b\r\nContent-Type: text/plain\r\n\r\nx\r\n", bytes)}--b--\r\n`,
  nested: (bytes) => {
    const depth = Math.min(2000, Math.floor(bytes / 80));
    const open = Array.from(
      { length: depth },
      (_, at) => `Content-Type: multipart/mixed; boundary="b${at}"\r\n\r\n--b${at}\r\n`,
    );
    return `${headers()}\r\n${open.join("")}Content-Type: text/plain\r\n\r\n${fill("x y ", Math.max(1, bytes - depth * 60))}`;
  },
  addresses: (bytes) => `${headers([`Cc: ${fill("a@example.org, ", bytes)}b@example.org`])}\r\n\r\nx`,
  references: (bytes) => `${headers([`References: ${fill("<a@b>\r\n ", bytes)}<c@d>`])}\r\n\r\nx`,
  headers: (bytes) => `${headers()}\r\n${fill("X-Header: value\r\n", bytes)}\r\nx`,
  base64: (bytes) =>
    `${headers(['Content-Type: application/octet-stream; name="a.bin"', "Content-Transfer-Encoding: base64"])}\r\n\r\n${fill(`${"QUJD".repeat(19)}\r\n`, bytes)}`,
  flowed: (bytes) => text(fill("word word \r\n", bytes), "text/plain; format=flowed; delsp=yes"),
  entities: (bytes) => html(fill("&amp;&lt;<b>", bytes)),
};

/** A plain client of its own: it sends at its pace, and does not look into what it sends. */
function send(message: string): Promise<string> {
  return new Promise((resolve) => {
    const socket = createConnection({ port, host: "127.0.0.1" });
    const steps = [
      "HELO bench\r\n",
      `MAIL FROM:<hostile${count}@example.net>\r\n`,
      "RCPT TO:<desk@example.com>\r\n",
      "DATA\r\n",
      `${message.replace(/^\./gm, "..")}\r\n.\r\n`,
      "QUIT\r\n",
    ];
    let heard = "";
    socket.setEncoding("utf8");
    socket.on("data", (chunk: string) => {
      heard += chunk;
      if (!/^\d{3} .*\r\n$/m.test(heard)) return;
      const code = heard.slice(0, 3);
      const answer = heard.trim();
      heard = "";
      if (code >= "400") {
        socket.destroy();
        resolve(answer);
        return;
      }
      const step = steps.shift();
      if (step === undefined) {
        socket.end();
        resolve("taken");
      } else socket.write(step);
    });
    socket.on("error", (error) => resolve(error.message));
  });
}

process.on("message", ({ shape, bytes }: { shape: string; bytes: number }) => {
  const make = shapes[shape];
  void send(make ? make(bytes) : "").then((said) => process.send?.(said));
});
