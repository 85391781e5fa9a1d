import { useState } from "react";
import { TabList, TabPanel, Tabs } from "../ui/tabs";
import { t } from "../words/outside";

interface Props {
  address: string;
  name: string;
  /** Key of the form that is on; null where none is. */
  form: string | null;
  /** Whether the chat keeps losing its connection. */
  drops: boolean;
}

const VIEWS = ["chat", "form"] as const;

/** Our own pages as the customer has them on a phone: the chat, and the form. */
export function Window({ address, name, form, drops }: Props) {
  const [view, setView] = useState<(typeof VIEWS)[number]>("chat");
  const who = new URLSearchParams({
    as: address,
    name,
    email: address,
    ...(drops ? { fault: "drops" } : {}),
  });
  const shown = VIEWS.filter((one) => one === "chat" || form !== null);
  const frame = "h-[40rem] w-full border border-line bg-sheet";
  return (
    <section aria-label={t("ofTheHouse")} className="w-full max-w-[24rem]">
      <Tabs value={view} onChange={(next) => setView(VIEWS.find((one) => one === next) ?? view)}>
        <TabList
          label={t("ofTheHouse")}
          className="gap-x-4 pb-2 text-sm"
          tabs={shown.map((value) => ({ value, words: t(value) }))}
        />
        <TabPanel value="chat" kept>
          <iframe key={String(drops)} title={t("chat")} src={`/chat?${who.toString()}`} className={frame} />
        </TabPanel>
        {form !== null && (
          <TabPanel value="form">
            <iframe title={t("form")} src={`/contact/${form}`} className={frame} />
          </TabPanel>
        )}
      </Tabs>
    </section>
  );
}
