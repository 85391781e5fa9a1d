import { Command } from "cmdk";
import { useState, type RefObject } from "react";
import * as z from "zod/mini";
import { channelName, replyChannels } from "#core/words/named";
import type { RecordChoices } from "#server/record/choices";
import type { RecordFilter } from "#server/record/search";
import { DateField } from "../ui/date-field";
import { Kbd } from "../ui/kbd";
import { LIST_ITEM, SearchedList } from "../ui/searched-list";
import { said, sameWords, Select } from "../ui/select";
import { useFound } from "../ui/use-found";
import { t } from "../words/record";

interface Props {
  filter: RecordFilter;
  choices: RecordChoices;
  reply: { key: string; title: string; versions: { id: number; number: number }[] } | null;
  field: RefObject<HTMLInputElement | null>;
  go: (changes: Record<string, string | null>) => void;
}

/** What is looked for in all that was said: words first, and what narrows them. */
export function Filters({ filter, choices, reply, field, go }: Props) {
  const who = filter.agent === null ? (filter.direction ?? "") : String(filter.agent);
  return (
    <>
      {/* What is not typed stays as it is while something is. */}
      {(["agent", "direction", "reply", "version", "topic", "channel", "from", "until"] as const).map(
        (name) =>
          filter[name] === null ? null : <input key={name} type="hidden" name={name} value={filter[name]} />,
      )}
      <label className="flex items-baseline gap-3">
        <span className="text-sm text-soft">{t("findInEverythingSaid")}</span>
        <input
          ref={field}
          type="search"
          name="words"
          defaultValue={filter.words}
          placeholder={t("wordsHint")}
          maxLength={300}
          className="lined-field grow font-serif text-lg"
        />
        <Kbd keys="/" />
      </label>
      <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3 text-sm">
        <Named words={t("customerOrAddress")}>
          <input
            name="customer"
            defaultValue={filter.customer}
            placeholder={t("nameOrAddress")}
            maxLength={300}
            className="lined-field w-36"
          />
        </Named>
        <Named words={t("organisation")}>
          <input
            name="organisation"
            defaultValue={filter.organisation}
            maxLength={300}
            className="lined-field w-32"
          />
        </Named>
        <Named words={t("saidBy")}>
          <Select
            label={t("saidBy")}
            className="lined-field w-36"
            value={who}
            options={[
              ["", t("anybody")],
              ["in", t("theCustomer")],
              ["out", t("us")],
              ...choices.people.map(({ id, name }) => [String(id), name] as const),
            ]}
            onChange={(value) => {
              const isSide = value === "in" || value === "out";
              go({ direction: isSide ? value : null, agent: isSide ? null : value });
            }}
          />
        </Named>
        <Named words={t("reply")}>
          <ReplyChoice reply={reply} go={go} />
        </Named>
        {reply && (
          <Named words={t("version")}>
            <Select
              label={t("version")}
              className="lined-field w-28"
              value={filter.version === null ? "" : String(filter.version)}
              options={[
                ["", t("anyVersion")],
                ...reply.versions.map(
                  ({ id, number }) => [String(id), t("versionNumber", { number })] as const,
                ),
              ]}
              onChange={(version) => go({ version })}
            />
          </Named>
        )}
        <Named words={t("topic")}>
          <Select
            label={t("topic")}
            className="lined-field w-32"
            value={filter.topic ?? ""}
            options={[["", t("anyTopic")], ...sameWords(choices.topics)]}
            onChange={(topic) => go({ topic })}
          />
        </Named>
        <Named words={t("channel")}>
          <Select
            label={t("channel")}
            className="lined-field w-28"
            value={filter.channel ?? ""}
            options={[["", t("anyChannel")], ...said(replyChannels, channelName)]}
            onChange={(channel) => go({ channel })}
          />
        </Named>
        <Named words={t("fromDay")}>
          <DateField label={t("fromDay")} value={filter.from ?? ""} onChange={(from) => go({ from })} />
        </Named>
        <Named words={t("untilDay")}>
          <DateField label={t("untilDay")} value={filter.until ?? ""} onChange={(until) => go({ until })} />
        </Named>
        <noscript>
          <button type="submit" className="quiet-link">
            {t("find")}
          </button>
        </noscript>
      </div>
    </>
  );
}

/** What narrows, under what it is called. */
function Named({ words, children }: { words: string; children: React.ReactElement }) {
  return (
    <label className="flex flex-col">
      <span className="text-soft">{words}</span>
      {children}
    </label>
  );
}

const one = z.object({ key: z.string(), title: z.string() });
type Found = z.infer<typeof one>;
const replies = z.pipe(
  z.object({ replies: z.array(one) }),
  z.transform((answer: { replies: Found[] }) => answer.replies),
);

function ReplyChoice({ reply, go }: Pick<Props, "reply" | "go">) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const found = useFound(isOpen ? "/record/replies" : null, typed.trim(), replies);
  const choose = (key: string | null) => {
    setOpen(false);
    go({ reply: key, version: null });
  };
  return (
    <SearchedList
      label={t("reply")}
      words={<span className="truncate">{reply?.title ?? t("anyReply")}</span>}
      open={isOpen}
      onOpen={(open) => {
        setOpen(open);
        setTyped("");
      }}
      className="lined-field w-48"
      input={{ value: typed, onValueChange: setTyped, placeholder: t("findAReply"), maxLength: 200 }}
      none={t("noReplyIsLikeThat")}
    >
      {reply && (
        <Command.Item value="" keywords={[typed]} onSelect={() => choose(null)} className={LIST_ITEM}>
          {t("anyReply")}
        </Command.Item>
      )}
      {found.map(({ key, title }) => (
        <Command.Item
          key={key}
          value={key}
          keywords={[title]}
          onSelect={() => choose(key)}
          className={LIST_ITEM}
        >
          {title}
        </Command.Item>
      ))}
    </SearchedList>
  );
}
