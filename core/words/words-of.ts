import i18next from "i18next";

/** The language that the interface speaks: a BCP 47 tag. */
export const INTERFACE_LANGUAGE = "en-GB";
const LANGUAGE = INTERFACE_LANGUAGE;

const spoken = i18next.createInstance();
void spoken.init({
  lng: LANGUAGE,
  fallbackLng: LANGUAGE,
  // Words are at hand when a screen is drawn, on the server too; each screen brings its own.
  initAsync: false,
  resources: {},
  // React escapes what it shows.
  interpolation: { escapeValue: false },
  keySeparator: false,
  nsSeparator: false,
});

/** Where a value stands in a text whose parts are kept: a character that no text of ours has (private use, Unicode 16, 23.5). */
const PLACE = "\ue000";

const isWords = (value: string | number) => typeof value === "string";

/** The forms of a plural (Unicode CLDR), as the end of a name. */
type Form = "zero" | "one" | "two" | "few" | "many" | "other";

/** The names of a catalogue; the forms of a plural go by one name. */
export type NameOf<Words> = {
  [Name in keyof Words & string]: Name extends `${infer Stem}_${Form}` ? Stem : Name;
}[keyof Words & string];

/** The values that stand in a text: `name` of `{{name}}` and of `{{name, number}}`. */
type ValuesIn<Text> = Text extends `${string}{{${infer Value}}}${infer Rest}`
  ? (Value extends `${infer Name},${string}` ? Name : Value) | ValuesIn<Rest>
  : never;

/** The text of a name, whatever its plural. */
type TextOf<Words, Name extends string> = Name extends keyof Words
  ? Words[Name]
  : `${Name}_other` extends keyof Words
    ? Words[`${Name}_other`]
    : never;

/** What a text is said with: the values that stand in it, and the number that its plural is of. */
type Needed<Words, Name extends string> =
  ValuesIn<TextOf<Words, Name>> | (`${Name}_other` extends keyof Words ? "count" : never);

/** The same as what is given; nothing, where nothing is needed. */
export type Values<Words, Name extends string> = [Needed<Words, Name>] extends [never]
  ? []
  : [values: Record<Needed<Words, Name>, string | number>];

/** Says what a screen says, by its name. */
export interface Say<Words> {
  <Name extends NameOf<Words>>(name: Name, ...values: Values<Words, Name>): string;
  /** Says it once it is needed, as the checks of Zod take their messages. */
  error<Name extends NameOf<Words>>(name: Name, ...values: Values<Words, Name>): { error: () => string };
  /** The screen whose words they are. */
  screen: string;
}

/**
 * The words of a screen. A text may hold values, as `{{name}}`; one that counts has a form for each plural of its language, by
 * `Intl.PluralRules`: `…_one`, `…_other`, told by `{{count}}`.
 * @param screen what they are kept under
 */
export function wordsOf<const Words extends Record<string, string>>(
  screen: string,
  words: Words,
): Say<Words> {
  spoken.addResourceBundle(LANGUAGE, screen, words);
  const filled = spoken.getFixedT(LANGUAGE, screen) as (name: string, values?: object) => string;
  // Some is said at every key: what a text is between its values is asked for once.
  const known = new Map<string, string[]>();
  const say = (name: string, values?: Record<string, string | number>) => {
    if (values && !Object.values(values).every(isWords)) return filled(name, values);
    let parts = known.get(name);
    if (!parts) {
      const places = Object.keys(values ?? {}).map((key): [string, string] => [key, PLACE + key + PLACE]);
      known.set(name, (parts = filled(name, Object.fromEntries(places)).split(PLACE)));
    }
    let text = parts[0] ?? "";
    for (let at = 1; at < parts.length; at += 2) text += `${values?.[parts[at] ?? ""]}${parts[at + 1]}`;
    return text;
  };
  const error = (name: string, values?: Record<string, string | number>) => ({
    error: () => say(name, values),
  });
  return Object.assign(say, { screen, error });
}
