import { useEffect, useRef, useState } from "react";
import { Form, Link, useRevalidator, useSearchParams, useSubmit } from "react-router";
import * as z from "zod/mini";
import type { ReplyColumn, ReplyFilter } from "#server/replies/filter";
import { Kbd } from "../ui/kbd";
import { languageName } from "#core/language/tag";
import { post } from "../ui/post";
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

const same = (words: string[]): Option[] => words.map((word) => [word, word]);

/** The search and the filters, in one line of plain choices. They stand in the address. */
export function Filters({ filter, known, owners, columns }: Props) {
  const [params] = useSearchParams();
  const submit = useSubmit();
  const form = useRef<HTMLFormElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  useKeys((event) => {
    const field = event.target instanceof HTMLElement && event.target.closest("input, select, textarea");
    if (event.key !== "/" || field || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    document.getElementById("find-reply")?.focus();
  });
  useEffect(() => () => clearTimeout(timer.current), []);

  /** Only what is set stands in the address. */
  const send = () => {
    if (!form.current) return;
    const data = new URLSearchParams();
    for (const [key, value] of new FormData(form.current))
      if (typeof value === "string" && value !== "") data.set(key, value);
    void submit(data, { action: "/shelves", replace: true });
  };
  const soon = () => {
    clearTimeout(timer.current);
    timer.current = setTimeout(send, 150);
  };
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
    <Form
      ref={form}
      action="/shelves"
      className="px-6 pt-3 pb-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      {filter.shelf && <input type="hidden" name="shelf" value={filter.shelf} />}
      {filter.sort && <input type="hidden" name="sort" value={filter.sort} />}
      {filter.down && <input type="hidden" name="down" value="true" />}
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <span className="flex grow items-center gap-1.5">
          <input
            id="find-reply"
            type="search"
            name="q"
            key={params.has("q") ? "searched" : "not searched"}
            aria-label="Find a reply"
            placeholder="Find by title, tag, words or blanks"
            defaultValue={filter.q}
            onChange={soon}
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
          onChange={send}
        />
        <Choice
          name="state"
          label="State"
          value={filter.state}
          any="not retired"
          options={[...same(["draft", "ready to check", "shelved", "retired"]), ["any", "any state"]]}
          onChange={send}
        />
        <Choice
          name="tag"
          label="Tag"
          value={filter.tag}
          any="any tag"
          options={same(known.tags)}
          onChange={send}
        />
        <Choice
          name="language"
          label="Language"
          value={filter.language}
          any="any language"
          options={known.languages.map((tag): Option => [tag, languageName(tag)])}
          onChange={send}
        />
        <details className="group relative">
          <summary className="quiet-link list-none">more</summary>
          <div className="absolute right-0 z-20 mt-1 flex w-56 flex-col gap-2.5 border border-line bg-sheet p-4 shadow-md">
            <Choice
              name="channel"
              label="Channel"
              value={filter.channel}
              any="any channel"
              options={same(["email", "chat", "sms"])}
              onChange={send}
            />
            <Choice
              name="topic"
              label="Topic"
              value={filter.topic}
              any="about anything"
              options={same(known.topics)}
              onChange={send}
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
              onChange={send}
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
              onChange={send}
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
              onChange={send}
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
              onChange={send}
            />
          </div>
        </details>
        <ColumnChoice columns={columns} />
        <noscript>
          <button type="submit" className="quiet-link">
            Show
          </button>
        </noscript>
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
    </Form>
  );
}

function Choice({
  name,
  label,
  value,
  any,
  options,
  onChange,
}: {
  name: string;
  label: string;
  value: string | null;
  any: string;
  options: Option[];
  onChange: () => void;
}) {
  return (
    <select
      name={name}
      aria-label={label}
      key={value ?? ""}
      defaultValue={value ?? ""}
      onChange={onChange}
      className={`lined-field max-w-40 bg-sheet ${value ? "font-semibold" : "text-soft"}`}
    >
      <option value="">{any}</option>
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
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
    <details className="relative">
      <summary className="quiet-link list-none">columns</summary>
      <fieldset className="absolute right-0 z-20 mt-1 flex w-48 flex-col gap-1 border border-line bg-sheet p-4 shadow-md">
        <legend className="sr-only">Columns</legend>
        {Object.entries(columnLabels).map(([column, label]) => (
          <label key={column} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={columns.includes(column as ReplyColumn)}
              onChange={(event) => void choose(column as ReplyColumn, event.target.checked)}
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
    </details>
  );
}
