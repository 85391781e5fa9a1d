const WORD = /[\p{L}\p{M}\p{N}][\p{L}\p{M}\p{N}'’.-]*/gu;
const LONGEST_NAME = 5;

/** A name for comparing: lower case, composed (NFC), one space between words, without closing dots. */
export function nameKey(name: string): string {
  return (name.normalize("NFC").toLowerCase().match(WORD) ?? [])
    .map((word) => word.replace(/\.+$/, ""))
    .join(" ");
}

/** The parts of a person's name, and the whole for comparing; null where they are not known. */
interface PersonNames {
  firstName: string | null;
  lastName: string | null;
  nameKey: string | null;
}

/**
 * First and last name of a display name, where it looks like a person's: “Brandt, Ana” and “Ana Brandt”. One word may be
 * a company's, and what holds digits or an @ is nobody's name.
 */
export function personNames(name: string | null): PersonNames {
  const whole = (firstName: string, lastName: string) => ({
    ...{ firstName, lastName },
    nameKey: nameKey(`${firstName} ${lastName}`),
  });
  if (name !== null && !/[@\d]/.test(name)) {
    const [last, first, ...more] = name.split(",").map((part) => part.trim());
    if (first && last && more.length === 0) return whole(first, last);
    const [one, ...others] = name.trim().split(/\s+/);
    if (one && others.length > 0) return whole(one, others.join(" "));
  }
  return { firstName: null, lastName: null, nameKey: null };
}

/**
 * Stretches of two to five words that might be somebody's name, as name keys, for looking them up
 * among the customers. Only stretches that begin with a capital or a letter of a script without capitals count.
 */
export function nameCandidates(text: string): string[] {
  const words = [...text.matchAll(WORD)];
  const found = new Set<string>();
  words.forEach((word, index) => {
    const first = word[0].slice(0, 1);
    if (first === first.toLowerCase() && first !== first.toUpperCase()) return;
    let stretch = word[0];
    for (let length = 2; length <= LONGEST_NAME; length += 1) {
      const next = words[index + length - 1];
      const before = words[index + length - 2];
      if (!next || !before) break;
      const between = text.slice(before.index + before[0].length, next.index);
      if (!/^[\s,]{1,3}$/.test(between) || between.includes("\n")) break;
      stretch += ` ${next[0]}`;
      found.add(nameKey(stretch));
    }
  });
  return [...found];
}

/** Where a name occurs in a text, as whole words; null when it does not. */
export function findName(text: string, name: string): { start: number; end: number } | null {
  const key = nameKey(name);
  const wanted = key.split(" ");
  if (key === "") return null;
  const words = [...text.matchAll(WORD)];
  for (let index = 0; index + wanted.length <= words.length; index += 1) {
    const stretch = words.slice(index, index + wanted.length);
    if (stretch.every((word, offset) => nameKey(word[0]) === wanted[offset])) {
      const first = stretch[0];
      const last = stretch.at(-1);
      if (first && last) return { start: first.index, end: last.index + last[0].replace(/\.+$/, "").length };
    }
  }
  return null;
}
