import * as address from "../ui/params";

/** The address of the list with some of its parameters changed; the first page again, unless a page is named. */
export function withParams(params: URLSearchParams, changes: Record<string, string | null>): string {
  return address.withParams("/shelves", params, { page: null, ...changes });
}
