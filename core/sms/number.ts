import { isSupportedCountry, parsePhoneNumberWithError, ParseError } from "libphonenumber-js/max";
import { t } from "../words/sms";

/** A telephone number, or why a text is none. */
export type PhoneNumber =
  | {
      ok: true;
      /** As gateways write it (ITU-T E.164): `+` and digits. */
      e164: string;
      /** As people of its country read it, with the country's code. */
      shown: string;
    }
  | { ok: false; problem: string };

/**
 * Reads a telephone number that short messages can go to.
 * @param country ISO 3166-1 alpha-2: where a number without a country's code is; null where that cannot be told
 */
export function readPhoneNumber(text: string, country: string | null): PhoneNumber {
  const home = country !== null && isSupportedCountry(country) ? country : undefined;
  try {
    const number = parsePhoneNumberWithError(text.slice(0, MOST), home ? { defaultCountry: home } : {});
    // Ranges are added faster than tables of them: a number that may be one is taken for one.
    if (!number.isPossible()) return { ok: false, problem: t("thatIsNoNumberThatExists") };
    if (number.isValid() && number.getType() === "FIXED_LINE")
      return { ok: false, problem: t("thatNumberIsOfAFixed") };
    return { ok: true, e164: number.number, shown: number.formatInternational() };
  } catch (error) {
    if (!(error instanceof ParseError)) throw error;
    return {
      ok: false,
      problem:
        error.message === "INVALID_COUNTRY" ? t("writeTheCountrysCodeFirst") : t("thatIsNoTelephoneNumber"),
    };
  }
}

/** A longer text is no number, and is not looked through. */
const MOST = 60;

/** A number as people read it; what is none stands as it is. */
export function shownNumber(e164: string): string {
  const read = readPhoneNumber(e164, null);
  return read.ok ? read.shown : e164;
}
