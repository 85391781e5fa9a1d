import { useState } from "react";
import { Link, useNavigate, useRevalidator, useSearchParams } from "react-router";
import { useDebouncedCallback } from "use-debounce";
import * as z from "zod/mini";
import type { ReplyColumn, ReplyFilter } from "#server/replies/filter";
import { Checkbox } from "../ui/checkbox";
import { Kbd } from "../ui/kbd";
import { languageName } from "#core/language/tag";
import { Popover } from "../ui/popover";
import { post } from "../ui/post";
import { Select } from "../ui/select";
import { useKeys } from "../ui/use-keys";
import { columnLabels } from "./column-labels";
import { withParams } from "./params";

interface Props {
  filter: ReplyFilter;
  known: { tags: string[]; topics: string[]; languages: string[] };
  owners: { id: number; name: string }[];
  columns: ReplyColumn[];
}

type Option = [value: string, words: string];

/** After a key, before it is searched for. */
const WAIT_MS = 150;

const same = (words: string[]): Option[] => words.map((word) => [word, word]);

/** The search and the filters, in one line of plain choices. They stand in the address. */
export function Filters({ filter, known, owners, columns }: Props) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const find = (q: string) => void navigate(withParams(params, { q: q || null }), { replace: true });
  const findSoon = useDebouncedCallback(find, WAIT_MS);

  useKeys((event) => {
    const field =
      event.target instanceof HTMLElement && event.target.closest("input, textarea, [role=combobox]");
    if (event.key !== "/" || field || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    document.getElementById("find-reply")?.focus();
  });
  const set = [
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
            id="find-reply"
            type="search"
            key={params.has("q") ? "searched" : "not searched"}
            aria-label="Find a reply"
            placeholder="Find by title, tag, words or blanks"
            defaultValue={filter.q}
            onChange={(event) => findSoon(event.target.value)}
            className="lined-field w-full max-w-md text-base"
          />
          <Kbd keys="/" />
        </span>
        <Choice
          name="part"
          label="Part"
          value={filter.part}
          any="any part"
          options={same(["opening", "answer", "closing"])}
        />
        <Choice
          name="state"
          label="State"
          value={filter.state}
          any="not retired"
          options={[...same(["draft", "ready to check", "shelved", "retired"]), ["any", "any state"]]}
        />
        <Choice name="tag" label="Tag" value={filter.tag} any="any tag" options={same(known.tags)} />
        <Choice
          name="language"
          label="Language"
          value={filter.language}
          any="any language"
          options={known.languages.map((tag): Option => [tag, languageName(tag)])}
        />
        <Popover
          words="more"
          label="More filters"
          className="w-56 gap-2.5 [&_[role=combobox]]:w-full [&_[role=combobox]]:max-w-none"
        >
          <Choice
            name="channel"
            label="Channel"
            value={filter.channel}
            any="any channel"
            options={same(["email", "chat", "sms"])}
          />
          <Choice
            name="topic"
            label="Topic"
            value={filter.topic}
            any="about anything"
            options={same(known.topics)}
          />
          <Choice
            name="owner"
            label="Owner"
            value={filter.owner === null ? "" : String(filter.owner)}
            any="anyone’s"
            options={[
              ["me", "mine"],
              ["nobody", "nobody’s"],
              ...owners.map(({ id, name }): Option => [String(id), name]),
            ]}
          />
          <Choice
            name="review"
            label="Review"
            value={filter.review}
            any="reviewed whenever"
            options={[
              ["due", "review is due"],
              ["soon", "due within 30 days"],
            ]}
          />
          <Choice
            name="season"
            label="Season"
            value={filter.season}
            any="in and out of season"
            options={[
              ["in", "in season"],
              ["out", "out of season"],
            ]}
          />
          <Choice
            name="use"
            label="Use"
            value={filter.use}
            any="used or not"
            options={[
              ["lately", "used lately"],
              ["never", "never used"],
            ]}
          />
        </Popover>
        <ColumnChoice columns={columns} />
      </div>
      {set.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
          {set.map((key) => (
            <Link
              key={key}
              to={withParams(params, { [key]: null })}
              className="border-b border-dotted border-ink"
              title="Take this filter off"
            >
              {`${key === "q" ? "words" : key}: ${params.get(key) ?? ""}`} <span aria-hidden="true">×</span>
            </Link>
          ))}
          <Link
            to={filter.shelf ? `/shelves?shelf=${encodeURIComponent(filter.shelf)}` : "/shelves"}
            className="quiet-link"
          >
            take all off
          </Link>
        </p>
      )}
    </form>
  );
}

function Choice({
  name,
  label,
  value,
  any,
  options,
}: {
  name: string;
  label: string;
  value: string | null;
  any: string;
  options: Option[];
}) {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  return (
    <Select
      label={label}
      value={value ?? ""}
      options={[["", any], ...options]}
      onChange={(next) => void navigate(withParams(params, { [name]: next || null }))}
      className={`lined-field max-w-40 ${value ? "font-semibold" : "text-soft"}`}
    />
  );
}

const nothing = z.object({});

function ColumnChoice({ columns }: { columns: ReplyColumn[] }) {
  const { revalidate } = useRevalidator();
  const [problem, setProblem] = useState<string | null>(null);
  const choose = async (column: ReplyColumn, on: boolean) => {
    const next = on ? [...columns, column] : columns.filter((one) => one !== column);
    const done = await post("/shelves/columns", { columns: next }, nothing);
    setProblem(done.ok ? null : done.problem);
    await revalidate();
  };
  return (
    <Popover words="columns" className="w-48">
      <fieldset className="flex flex-col gap-1.5">
        <legend className="sr-only">Columns</legend>
        {Object.entries(columnLabels).map(([column, label]) => (
          <label key={column} className="flex items-center gap-2">
            <Checkbox
              checked={columns.includes(column as ReplyColumn)}
              onChange={(on) => void choose(column as ReplyColumn, on)}
            />
            {label}
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
