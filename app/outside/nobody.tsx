import { t } from "../words/outside";
export default function Nobody() {
  return (
    <p className="px-8 py-14 text-center font-serif text-lg text-soft">{t("whoseMailboxChooseOneAtThe")}</p>
  );
}
