const LONGEST_NAME = 60;

/** What a case of words without a subject is called: its first words. */
export function beginningOf(words: string): string {
  const line = words.replace(/\s+/g, " ").trim();
  if (line.length <= LONGEST_NAME) return line;
  const cut = line.lastIndexOf(" ", LONGEST_NAME);
  return `${line.slice(0, cut > LONGEST_NAME / 2 ? cut : LONGEST_NAME)} …`;
}
