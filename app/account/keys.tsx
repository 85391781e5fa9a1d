import { Link } from "react-router";
import { Kbd } from "../ui/kbd";
import { places, shortcuts, type Shortcut } from "../ui/shortcuts";
import { t } from "../words/account";

const listed: Shortcut[] = Object.values(shortcuts);

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
            <h2 className="border-b border-line pb-1 font-bold">{place}</h2>
            <dl className="mt-2 grid grid-cols-[9.5rem_1fr] gap-y-1.5">
              {listed
                .filter((one) => one.place === place && one.shown !== "")
                .map(({ shown, does }) => (
                  <div key={does} className="contents">
                    <dt>
                      <Kbd keys={shown} always />
                    </dt>
                    <dd>{does}</dd>
                  </div>
                ))}
            </dl>
          </section>
        ))}
      </div>
    </main>
  );
}
