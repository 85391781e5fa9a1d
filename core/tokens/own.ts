/** An entry of a record by a name that came from outside: only the record's own entries count (`constructor` is none). */
export function ownEntry<T>(record: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(record, name) ? record[name] : undefined;
}
