/** Where a reference stands in an address. */
export const REFERENCE = "{reference}";
