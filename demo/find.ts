/** What a key of the demo's files stands for. @throws Error when nothing has the key */
export function find<T>(map: ReadonlyMap<string, T>, key: string, kind: string): T {
  const found = map.get(key);
  if (!found) throw new Error(`demo: there is no ${kind} “${key}”`);
  return found;
}
