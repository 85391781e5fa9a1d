import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { foundAgainst, readAuthenticationResults } from "./authentication";

test("results are read with comments, quoted strings, versions and properties (RFC 8601, appendix B)", () => {
  const header =
    ' mx.Example.com (by us; spf=fail) 1; auth=pass (cleartext) smtp.auth=a@example.net;\r\n spf=fail smtp.mailfrom="example.net; dkim=pass"; dkim/1=PASS header.i=@example.net reason="good; signature"';
  expect(readAuthenticationResults(header)).toEqual({
    by: "mx.example.com",
    results: [
      { method: "auth", result: "pass", about: "smtp.auth=a@example.net" },
      { method: "spf", result: "fail", about: 'smtp.mailfrom="example.net;' },
      { method: "dkim", result: "pass", about: "header.i=@example.net" },
    ],
  });
  expect(readAuthenticationResults("mx.example.com; none")).toEqual({ by: "mx.example.com", results: [] });
  expect(readAuthenticationResults("")).toBeNull();
});

test("only what a trusted receiver found against the sender counts", () => {
  const trusted = new Set(["mx.example.com"]);
  const headers = [
    "mx.example.com; spf=softfail; dkim=none; dmarc=temperror; arc=pass",
    "mx.evil.example; spf=fail",
  ];
  expect(foundAgainst(headers, trusted).map(({ method }) => method)).toEqual(["spf"]);
});

test("whatever a header holds, it is read", () => {
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), (header) => {
      const read = readAuthenticationResults(header);
      expect(read === null || Array.isArray(read.results)).toBe(true);
    }),
  );
});
