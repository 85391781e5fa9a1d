/** An address with some of its parameters changed; null and nothing take one away. */
export function withParams(
  path: string,
  params: URLSearchParams,
  changes: Record<string, string | null>,
): string {
  const next = new URLSearchParams(params);
  for (const [key, value] of Object.entries(changes)) {
    if (value === null || value === "") next.delete(key);
    else next.set(key, value);
  }
  const text = next.toString();
  return text === "" ? path : `${path}?${text}`;
}
