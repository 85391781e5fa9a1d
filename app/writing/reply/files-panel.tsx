import { useRef } from "react";
import type { AttachmentRef } from "#core/compose/slip";
import type { Content } from "#server/replies/content";
import { fileSize } from "#core/text/counted";
import { SortableList } from "../../ui/sortable-list";
import type { ChangeContent } from "./use-reply";
import { Hint } from "../../ui/hint";
import { t } from "../../words/writing";

interface Props {
  content: Content;
  change: ChangeContent;
  /** Stores a file. @returns null where it was refused */
  upload: (file: File, picture: boolean) => Promise<AttachmentRef | null>;
  problem: string | null;
}

/** What a file is, for whoever cannot open it here. */
function kindWords({ contentType, name }: AttachmentRef): string {
  if (contentType === "application/pdf") return t("aPdf");
  if (contentType.startsWith("image/")) return t("aPicture");
  if (contentType.startsWith("text/")) return t("aText");
  const ending = /\.([a-z0-9]{1,5})$/i.exec(name)?.[1];
  return ending ? ending.toUpperCase() : t("aFile");
}

/** Files that travel with every letter of the reply: several, in order, each replaceable. */
export function FilesPanel({ content, change, upload, problem }: Props) {
  const { files } = content;
  const add = useRef<HTMLInputElement>(null);
  const attach = async (list: FileList | null) => {
    for (const file of [...(list ?? [])]) {
      const stored = await upload(file, false);
      if (stored)
        change((now) => ({ ...now, files: [...now.files.filter((one) => one.id !== stored.id), stored] }));
    }
  };
  const replace = async (old: AttachmentRef, file: File | undefined) => {
    const stored = file && (await upload(file, false));
    if (stored)
      change((now) => ({ ...now, files: now.files.map((one) => (one.id === old.id ? stored : one)) }));
  };
  return (
    <div className="flex flex-col gap-3 text-sm">
      {files.length === 0 && <p className="text-soft">{t("filesAttachedHereGoWithEvery")}</p>}
      <SortableList
        label={t("filesInTheOrderInWhich")}
        keys={files.map((file) => file.id)}
        nameOf={(id) => files.find((file) => file.id === id)?.name ?? id}
        onOrder={(ids) =>
          change((now) => ({
            ...now,
            files: ids.flatMap((id) => now.files.filter((file) => file.id === id)),
          }))
        }
        fixed={files.length < 2}
        className="flex flex-col"
        itemClassName="flex items-start gap-3 border-b border-line py-2"
      >
        {(id, handle) => {
          const file = files.find((one) => one.id === id);
          if (!file) return null;
          return (
            <>
              {handle}
              {file.contentType.startsWith("image/") ? (
                <img
                  src={`/library-files/${file.id}`}
                  alt=""
                  className="h-12 w-12 border border-line object-cover"
                />
              ) : (
                <span className="flex h-12 w-12 items-center justify-center border border-line text-xs">
                  {kindWords(file)}
                </span>
              )}
              <span className="min-w-0">
                <Hint words={file.name}>
                  <a
                    href={`/library-files/${file.id}`}
                    target="_blank"
                    rel="noreferrer"
                    className="block truncate font-semibold underline underline-offset-2"
                  >
                    {file.name}
                  </a>
                </Hint>
                <span className="text-soft">
                  {kindWords(file)}, {fileSize(file.size)}
                </span>
              </span>
              <span className="ml-auto flex gap-3">
                <label className="quiet-link">
                  {t("replace")}
                  <input
                    type="file"
                    className="sr-only"
                    onChange={(event) => {
                      void replace(file, event.target.files?.[0]);
                      event.target.value = "";
                    }}
                  />
                </label>
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() =>
                    change((now) => ({ ...now, files: now.files.filter((one) => one.id !== id) }))
                  }
                >
                  {t("remove")}
                </button>
              </span>
            </>
          );
        }}
      </SortableList>
      <label className="quiet-link self-start">
        {t("attachFiles")}
        <input
          ref={add}
          type="file"
          multiple
          className="sr-only"
          onChange={(event) => {
            void attach(event.target.files);
            event.target.value = "";
          }}
        />
      </label>
      {problem && (
        <p role="alert" className="text-stop">
          {problem}
        </p>
      )}
    </div>
  );
}
