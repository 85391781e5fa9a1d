const WIDTH = 72;

/**
 * Plain text as format=flowed (RFC 3676, DelSp=no): long lines are broken behind a space, which says
 * that they go on; lines that begin with a space, `>` or `From ` are stuffed with one.
 * Quoted lines keep their `>` and are not broken.
 */
export function flowed(text: string): string {
  return text
    .split("\n")
    .flatMap((line) => {
      // A signature separator is kept; other closing spaces would read as a soft break.
      const fixed = line === "-- " ? line : line.trimEnd();
      return fixed.startsWith(">") || fixed === "-- " ? [fixed] : broken(fixed).map(stuffed);
    })
    .join("\n");
}

function broken(line: string): string[] {
  const lines: string[] = [];
  let rest = line;
  while (rest.length > WIDTH) {
    const space = rest.lastIndexOf(" ", WIDTH - 1);
    const at = space > 0 ? space : rest.indexOf(" ");
    if (at <= 0 || rest.slice(at + 1).trim() === "") break;
    lines.push(rest.slice(0, at + 1));
    rest = rest.slice(at + 1);
  }
  return [...lines, rest];
}

function stuffed(line: string): string {
  return /^(?: |>|From )/.test(line) ? ` ${line}` : line;
}

/**
 * Flowed text as it was before: soft breaks joined, stuffing taken away.
 * @param deleteSpace the message's DelSp: whether the space that marks a soft break is only that
 */
export function unflowed(text: string, deleteSpace = false): string {
  const paragraphs: string[][] = [];
  let open = false;
  for (const line of text.split("\n")) {
    const bare = line.startsWith(" ") ? line.slice(1) : line;
    const goesOn = open && !line.startsWith(">");
    open = bare.endsWith(" ") && bare !== "-- " && !line.startsWith(">");
    const words = open && deleteSpace ? bare.slice(0, -1) : bare;
    if (goesOn) paragraphs.at(-1)?.push(words);
    else paragraphs.push([words]);
  }
  return paragraphs.map((parts) => parts.join("")).join("\n");
}

const PLAIN_PART = /^content-type:\s*text\/plain\b(?:[^\r\n]|\r?\n[ \t])*/im;

/**
 * How the plain text of a raw message flows, told by the header of its first such part.
 * @returns null when it does not say format=flowed
 */
export function flowOf(raw: string): { deleteSpace: boolean } | null {
  const header = PLAIN_PART.exec(raw)?.[0] ?? "";
  if (!/format="?flowed"?/i.test(header)) return null;
  return { deleteSpace: /delsp="?yes"?/i.test(header) };
}
