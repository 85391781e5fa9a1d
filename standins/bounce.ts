/** A letter that could not be delivered. */
interface Undelivered {
  /** The letter, as it was taken. */
  raw: Buffer;
  /** Its envelope sender. */
  from: string;
  recipient: string;
}

/** A mail server's report that a letter was given up (RFC 3464): words, the fields of delivery, and the letter's headers. */
export function bounceOf({ raw, from, recipient }: Undelivered): Buffer {
  const letter = raw.toString("latin1");
  const headers = letter.slice(0, letter.indexOf("\r\n\r\n") + 2);
  return Buffer.from(
    [
      "From: Mail delivery <mailer-daemon@outside.example.net>",
      `To: ${from}`,
      "Subject: Undelivered mail returned to sender",
      `Date: ${new Date().toUTCString().replace("GMT", "+0000")}`,
      "Auto-Submitted: auto-replied",
      "MIME-Version: 1.0",
      'Content-Type: multipart/report; report-type=delivery-status; boundary="bounce"',
      "",
      "--bounce",
      "Content-Type: text/plain; charset=utf-8",
      "",
      `Your message could not be delivered to ${recipient}: the mailbox is gone.`,
      "",
      "--bounce",
      "Content-Type: message/delivery-status",
      "",
      "Reporting-MTA: dns; outside.example.net",
      "",
      `Final-Recipient: rfc822; ${recipient}`,
      "Action: failed",
      "Status: 5.1.1",
      "Diagnostic-Code: smtp; 550 5.1.1 The mailbox is gone",
      "",
      "--bounce",
      "Content-Type: text/rfc822-headers",
      "",
      headers,
      "--bounce--",
      "",
    ].join("\r\n"),
    "latin1",
  );
}
