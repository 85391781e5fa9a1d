/** The address of the list with some of its parameters changed; the first page again, unless a page is named. */
export function withParams(params: URLSearchParams, changes: Record<string, string | null>): string {
  const next = new URLSearchParams(params);
  next.delete("page");
  for (const [key, value] of Object.entries(changes)) {
    if (value === null || value === "") next.delete(key);
    else next.set(key, value);
  }
  const text = next.toString();
  return text === "" ? "/shelves" : `/shelves?${text}`;
}
