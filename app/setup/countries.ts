import type { Option } from "../ui/select";

/** ISO 3166-1 alpha-2. */
const CODES =
  "AD AE AL AM AR AT AU AZ BA BE BG BH BO BR BY CA CH CL CN CO CR CY CZ DE DK DO DZ EC EE EG ES FI FO FR GB GE GG GI GL GR GT HK HN HR HU ID IE IL IM IN IS IT JE JO JP KE KR KW KZ LB LI LT LU LV MA MC MD ME MK MT MX MY NG NI NL NO NZ PA PE PH PK PL PT PY QA RO RS RU SA SE SG SI SK SM SV TH TN TR TW UA US UY VA VE VN ZA";

const names = new Intl.DisplayNames("en", { type: "region" });

/** Countries by name. */
export const countries: readonly Option[] = CODES.split(" ")
  .map((code): Option => [code, names.of(code) ?? code])
  .sort(([, a], [, b]) => a.localeCompare(b, "en"));
