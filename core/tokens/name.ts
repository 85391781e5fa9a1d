/**
 * A label as a name for token texts, as in `{$blank.which_harbour}`: small letters, digits and underscores, at most 40.
 * @param taken names that it must not be; it gets a number then
 * @param usual the name of a label without any letter
 */
export function nameFrom(label: string, taken: ReadonlySet<string>, usual: string): string {
  const base =
    label
      .normalize("NFKD")
      .replace(/\p{M}/gu, "")
      .replaceAll("ß", "ss")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "_")
      .replace(/^[_0-9]+|_+$/g, "")
      .slice(0, 40) || usual;
  let name = base;
  for (let count = 2; taken.has(name); count += 1) name = `${base}_${count}`;
  return name;
}
