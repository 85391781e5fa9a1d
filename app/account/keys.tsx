import { Link } from "react-router";
import { Kbd } from "../ui/kbd";
import { places, shortcuts, type ShortcutName } from "../ui/shortcuts";
import { t } from "../words/account";
import { t as say } from "../words/keys";

/** Those that are listed: another may stand for two. */
type Shown = {
  [Name in ShortcutName]: (typeof shortcuts)[Name]["shown"] extends "" ? never : Name;
}[ShortcutName];

const names = Object.keys(shortcuts) as ShortcutName[];
const shown = names.filter((name): name is Shown => shortcuts[name].shown !== "");

export default function Keys() {
  return (
    <main className="mx-5 grow bg-sheet px-8 py-6 max-sm:mx-3 max-sm:px-4">
      <title>{t("keysPlainShelf")}</title>
      <p className="text-sm">
        <Link to="/waiting" className="quiet-link">
          {t("toTheList")}
        </Link>
      </p>
      <h1 className="mt-2 text-xl font-bold">{t("keys")}</h1>
      <div className="mt-5 gap-x-12 md:columns-2 xl:columns-3">
        {places.map((place) => (
          <section key={place} className="mb-6 break-inside-avoid">
            <h2 className="border-b border-line pb-1 font-bold">{say(place)}</h2>
            <dl className="mt-2 grid grid-cols-[9.5rem_1fr] gap-y-1.5">
              {shown
                .filter((name) => shortcuts[name].place === place)
                .map((name) => (
                  <div key={name} className="contents">
                    <dt>
                      <Kbd keys={shortcuts[name].shown} always />
                    </dt>
                    <dd>{say(name)}</dd>
                  </div>
                ))}
            </dl>
          </section>
        ))}
      </div>
    </main>
  );
}
