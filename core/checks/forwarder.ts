import { everyAddressIn } from "../document/addresses";
import type { CheckInput, SendCheck } from "./check";
import { bodyPlace, stop } from "./finding";
import { t } from "../words/second-look";

/** A telephone number: seven digits or more, grouped as people group them. */
const NUMBER = /(?<![\p{L}\d/])\+?\(?\d(?:[\s()./-]{0,2}\d){6,14}(?![\p{L}\d])/gu;

/** Days and times, whose digits are no telephone number. */
const WHEN =
  /(?<!\d)(?:\d{4}-\d{2}-\d{2}|\d{1,2}[./]\d{1,2}[./]\d{2,4})(?:[\sT]\d{1,2}[.:]\d{2})?(?!\d)|(?<!\d)\d{1,2}:\d{2}(?!\d)/g;

/** What would not pass: each link, address and telephone number that may not stand, and a letter that is too long. */
export function notLetThrough({ letter, forwarder }: CheckInput): SendCheck[] {
  if (!forwarder) return [];
  const { name, rules } = forwarder;
  const { text } = letter;
  const found: SendCheck[] = [];
  for (const { words, from, isMail } of everyAddressIn(text)) {
    if (isMail ? !rules.noAddresses : !rules.noLinks) continue;
    const message = t(isMail ? "nameLetsNoAddressThrough" : "nameLetsNoLinkThrough", { name, words });
    found.push(
      stop(
        isMail ? "forwarder-address" : "forwarder-link",
        message,
        bodyPlace(letter, from, from + words.length),
      ),
    );
  }
  if (rules.noNumbers)
    for (const match of text.replace(WHEN, (when) => "·".repeat(when.length)).matchAll(NUMBER)) {
      const words = match[0];
      const at = bodyPlace(letter, match.index, match.index + match[0].length);
      found.push(stop("forwarder-number", t("nameLetsNoNumberThrough", { name, words }), at));
    }
  if (rules.most !== null && text.length > rules.most)
    found.push(
      stop("forwarder-length", t("nameLetsOnlySoMuchThrough", { name, most: rules.most, now: text.length })),
    );
  return found;
}
