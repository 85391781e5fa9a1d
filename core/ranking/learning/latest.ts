/**
 * So many at most of what was answered, in its order: as many of the latest of each reply as there is room for, equally
 * many of all that have more.
 */
export function latestOfEach<Answer extends { reply: string | null }>(
  answers: Answer[],
  most: number,
): Answer[] {
  if (answers.length <= most) return answers;
  const before = new Map<string | null, number>();
  // How many later answers of the same reply there are.
  const later = new Int32Array(answers.length);
  for (let at = answers.length - 1; at >= 0; at -= 1) {
    const reply = answers[at]?.reply ?? null;
    const count = before.get(reply) ?? 0;
    later[at] = count;
    before.set(reply, count + 1);
  }
  const ofEach = mostOfEach([...before.values()], most);
  return answers.filter((_, at) => (later[at] ?? 0) < ofEach);
}

/** The highest number to which each count may be cut down so that all together are no more than the most. */
function mostOfEach(counts: number[], most: number): number {
  let left = most;
  for (const [index, count] of counts.sort((a, b) => a - b).entries()) {
    const share = Math.floor(left / (counts.length - index));
    if (count > share) return share;
    left -= count;
  }
  return Infinity;
}
