import { X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { useDebouncedCallback } from "use-debounce";
import type { ReplyColumn, ReplyFilter } from "#server/replies/filter";
import { channelName, partName, replyChannels, replyParts, replyStates, stateName } from "#core/words/named";
import { Checkbox } from "../ui/checkbox";
import { Kbd } from "../ui/kbd";
import { languageName } from "#core/language/tag";
import { Popover } from "../ui/popover";
import { SortableList } from "../ui/sortable-list";
import { useAct } from "../ui/act";
import { said, sameWords, Select, type Option } from "../ui/select";
import { useFindKeys } from "../ui/use-find-keys";
import { useShortcut } from "../ui/use-shortcut";
import { columnLabels } from "./column-labels";
import { withParams } from "./params";
import { Hint } from "../ui/hint";
import { t } from "../words/shelves";

interface Props {
  filter: ReplyFilter;
  known: { tags: string[]; topics: string[]; languages: string[] };
  owners: { id: number; name: string }[];
  columns: ReplyColumn[];
  /** The first of what was found; null for nothing. */
  first: string | null;
}

/** After a key, before it is searched for. */
const WAIT_MS = 150;

/** The search and the filters, in one line of plain choices. They stand in the address. */
export function Filters({ filter, known, owners, columns, first }: Props) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  /** Only what is set stands in the address. */
  const set = (name: string, value: string) =>
    void navigate(withParams(params, { [name]: value || null }), { replace: true });
  const findSoon = useDebouncedCallback((q: string) => set("q", q), WAIT_MS);

  const rows = () => document.querySelectorAll<HTMLElement>("tr[data-index]");
  const field = useRef<HTMLInputElement>(null);
  useFindKeys(field, {
    searched: filter.q,
    toList: () => (rows().length === 0 ? field.current?.blur() : rows()[0]?.focus()),
    open: () => first !== null && void navigate(`/replies/${first}`),
    clear: () => {
      if (field.current) field.current.value = "";
      findSoon.cancel();
      set("q", "");
    },
  });
  // What a link searches for, or for nothing any more, is what the field says; whoever types there is left alone.
  useEffect(() => {
    if (field.current && document.activeElement !== field.current) field.current.value = filter.q;
  }, [field, filter.q]);
  useShortcut("findReply", () => field.current?.focus());
  const given = [
    "q",
    "part",
    "state",
    "tag",
    "channel",
    "language",
    "topic",
    "owner",
    "review",
    "season",
    "use",
  ].filter((key) => params.has(key));

  return (
    <form
      role="search"
      className="px-6 pt-3 pb-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        findSoon.flush();
      }}
    >
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <span className="flex grow items-center gap-1.5">
          <input
            ref={field}
            type="search"
            aria-label={t("findAReply")}
            placeholder={t("findByTitleTagWordsOr")}
            defaultValue={filter.q}
            onChange={(event) => findSoon(event.target.value)}
            className="lined-field w-full max-w-md text-base"
          />
          <Kbd keys="/" />
        </span>
        <Choice
          onChange={set}
          name="part"
          label={t("part")}
          value={filter.part}
          any={t("anyPart")}
          options={said(replyParts, partName)}
        />
        <Choice
          onChange={set}
          name="state"
          label={t("state")}
          value={filter.state}
          any={t("notRetired")}
          options={[...said(replyStates, stateName), ["any", t("anyState")]]}
        />
        <Choice
          onChange={set}
          name="tag"
          label={t("tag")}
          value={filter.tag}
          any={t("anyTag")}
          options={sameWords(known.tags)}
        />
        <Choice
          onChange={set}
          name="language"
          label={t("language")}
          value={filter.language}
          any={t("anyLanguage")}
          options={known.languages.map((tag): Option => [tag, languageName(tag)])}
        />
        <Popover
          words={t("more")}
          label={t("moreFilters")}
          className="w-56 gap-2.5 [&_[role=combobox]]:w-full [&_[role=combobox]]:max-w-none"
        >
          <Choice
            onChange={set}
            name="channel"
            label={t("channel")}
            value={filter.channel}
            any={t("anyChannel")}
            options={said(replyChannels, channelName)}
          />
          <Choice
            onChange={set}
            name="topic"
            label={t("topic")}
            value={filter.topic}
            any={t("aboutAnything")}
            options={sameWords(known.topics)}
          />
          <Choice
            onChange={set}
            name="owner"
            label={t("owner")}
            value={filter.owner === null ? "" : String(filter.owner)}
            any={t("anyones")}
            options={[
              ["me", t("mine")],
              ["nobody", t("nobodys")],
              ...owners.map(({ id, name }): Option => [String(id), name]),
            ]}
          />
          <Choice
            onChange={set}
            name="review"
            label={t("review")}
            value={filter.review}
            any={t("reviewedWhenever")}
            options={[
              ["due", t("reviewIsDue")],
              ["soon", t("dueWithin30Days")],
            ]}
          />
          <Choice
            onChange={set}
            name="season"
            label={t("season")}
            value={filter.season}
            any={t("inAndOutOfSeason")}
            options={[
              ["in", t("inSeason")],
              ["out", t("outOfSeason")],
            ]}
          />
          <Choice
            onChange={set}
            name="use"
            label={t("use")}
            value={filter.use}
            any={t("usedOrNot")}
            options={[
              ["lately", t("usedLately")],
              ["never", t("neverUsed")],
            ]}
          />
        </Popover>
        <ColumnChoice columns={columns} />
      </div>
      {given.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
          {given.map((key) => (
            <Hint key={key} words={t("takeThisFilterOff")}>
              <Link
                to={withParams(params, { [key]: null })}
                className="flex items-center gap-1 border-b border-dotted border-ink"
              >
                {`${key === "q" ? t("words") : key}: ${params.get(key) ?? ""}`}{" "}
                <X size={14} aria-hidden="true" />
              </Link>
            </Hint>
          ))}
          <Link
            to={filter.shelf ? `/shelves?shelf=${encodeURIComponent(filter.shelf)}` : "/shelves"}
            className="quiet-link"
          >
            {t("clearAll")}
          </Link>
        </p>
      )}
    </form>
  );
}

function Choice({
  name,
  value,
  any,
  options,
  onChange,
  ...rest
}: {
  name: string;
  label: string;
  value: string | null;
  any: string;
  options: readonly Option[];
  onChange: (name: string, value: string) => void;
}) {
  return (
    <Select
      {...rest}
      value={value ?? ""}
      options={[["", any], ...options]}
      onChange={(next) => onChange(name, next)}
      className={`lined-field max-w-40 ${value ? "font-semibold" : "text-soft"}`}
    />
  );
}

function ColumnChoice({ columns }: { columns: ReplyColumn[] }) {
  const act = useAct();
  const [problem, setProblem] = useState<string | null>(null);
  const others = (Object.keys(columnLabels()) as ReplyColumn[]).filter((one) => !columns.includes(one));
  const choose = async (next: ReplyColumn[]) => {
    const done = await act("/shelves/columns", { columns: next });
    setProblem(done.ok ? null : done.problem);
  };
  return (
    <Popover words={t("columns")} className="w-52">
      <fieldset className="flex flex-col gap-1.5">
        <legend className="sr-only">{t("columns2")}</legend>
        <SortableList
          label={t("columnsInTheOrderInWhich")}
          keys={columns}
          nameOf={(column) => columnLabels()[column as ReplyColumn]}
          onOrder={(keys) => choose(keys as ReplyColumn[])}
          fixed={columns.length < 2}
          className="flex flex-col gap-1.5"
          itemClassName="flex items-center justify-between gap-2"
        >
          {(column, handle) => (
            <>
              <label className="flex items-center gap-2">
                <Checkbox checked onChange={() => void choose(columns.filter((one) => one !== column))} />
                {columnLabels()[column as ReplyColumn]}
              </label>
              {handle}
            </>
          )}
        </SortableList>
        {others.map((column) => (
          <label key={column} className="flex items-center gap-2">
            <Checkbox checked={false} onChange={() => void choose([...columns, column])} />
            {columnLabels()[column]}
          </label>
        ))}
        {problem && (
          <p role="alert" className="text-stop">
            {problem}
          </p>
        )}
      </fieldset>
    </Popover>
  );
}
