import { useEffect, useState } from "react";
import * as z from "zod/mini";
import { fieldOwners, fieldTypes, type FieldOwner } from "#core/tokens/fields";
import { moneySchema } from "#core/tokens/context";
import { useAct } from "../ui/act";
import { Button } from "../ui/button";
import { Dialog, DialogFoot } from "../ui/dialog";
import { FormProblem } from "../ui/form";
import { readFrom } from "../ui/read";
import { t } from "../words/ui";
import { draftOfValue, FieldInput, givenOf, type FieldDraft } from "./field-input";

const field = z.object({
  of: z.enum(fieldOwners),
  key: z.string(),
  label: z.string(),
  type: z.enum(fieldTypes),
  options: z.array(z.string()),
  required: z.boolean(),
  value: z.union([z.string(), z.number(), z.boolean(), z.null(), moneySchema, z.array(z.string())]),
});
type Field = z.infer<typeof field>;
const answer = z.object({ fields: z.array(field) });

/** What has fields that are filled in together. */
export interface Fillable {
  of: FieldOwner;
  id: number;
  /** What it is called above its fields. */
  title: string;
}

interface Filling extends Fillable {
  fields: Field[];
}

const nameOf = ({ of, key }: Pick<Field, "of" | "key">) => `${of}.${key}`;

/** Fills in the house's own fields of a case, its customer and their organisation, or of a colleague. */
export default function FillDialog({
  owners,
  topic = null,
  onClose,
}: {
  owners: Fillable[];
  /** Of the case. */
  topic?: string | null;
  onClose: () => void;
}) {
  const [filling, setFilling] = useState<Filling[] | null>(null);
  const [drafts, setDrafts] = useState<Record<string, FieldDraft>>({});
  const [problem, setProblem] = useState<string | undefined>();
  const [busy, setBusy] = useState(false);
  const act = useAct();
  const asked = JSON.stringify(owners);
  useEffect(() => {
    const abort = new AbortController();
    const read = async (owner: Fillable): Promise<Filling> => {
      const query = topic === null ? "" : `?topic=${encodeURIComponent(topic)}`;
      const found = answer.safeParse(
        await readFrom(`/fields/${owner.of}/${owner.id}/values${query}`, abort.signal),
      );
      if (!found.success) throw new Error(t("theServersAnswerCouldNotBe"));
      return { ...owner, fields: found.data.fields };
    };
    Promise.all((JSON.parse(asked) as Fillable[]).map(read))
      .then((all) => {
        setFilling(all);
        const known = all.flatMap(({ fields }) => fields);
        setDrafts(Object.fromEntries(known.map((one) => [nameOf(one), draftOfValue(one.value)])));
      })
      .catch((error: unknown) => {
        if (!abort.signal.aborted)
          setProblem(error instanceof Error ? error.message : t("theServersAnswerCouldNotBe"));
      });
    return () => abort.abort();
  }, [asked, topic]);
  const keep = async () => {
    setBusy(true);
    for (const { of, id, fields } of filling ?? []) {
      const values = Object.fromEntries(
        fields.flatMap((one) => {
          const draft = drafts[nameOf(one)];
          const isSame = JSON.stringify(draft) === JSON.stringify(draftOfValue(one.value));
          return draft === undefined || isSame ? [] : [[one.key, givenOf(one.type, draft)] as const];
        }),
      );
      if (Object.keys(values).length === 0) continue;
      const done = await act(`/fields/${of}/${id}/save`, { values });
      if (!done.ok) {
        setBusy(false);
        return setProblem(done.problem);
      }
    }
    onClose();
  };
  const shown = filling?.filter(({ fields }) => fields.length > 0) ?? [];
  return (
    <Dialog title={t("fillIn")} words={t("repliesReadTheseAtOnce")} onClose={onClose}>
      {filling !== null && shown.length === 0 && <p className="mt-4 text-soft">{t("thereAreNoFields")}</p>}
      {shown.map(({ of, title, fields }) => (
        <fieldset key={of} className="mt-4">
          <legend className="font-bold">{title}</legend>
          {fields.map((one) => (
            <div key={nameOf(one)} className="mt-2 grid grid-cols-[11rem_1fr] items-baseline gap-3 text-sm">
              <span className="[overflow-wrap:anywhere]">
                {one.label}
                {one.required && <span className="block text-soft">{t("isRequired")}</span>}
              </span>
              <FieldInput
                label={one.label}
                type={one.type}
                options={one.options}
                draft={drafts[nameOf(one)] ?? draftOfValue(null)}
                onChange={(draft) => setDrafts({ ...drafts, [nameOf(one)]: draft })}
              />
            </div>
          ))}
        </fieldset>
      ))}
      <FormProblem words={problem} />
      <DialogFoot className="mt-5" onCancel={onClose}>
        <Button disabled={busy || shown.length === 0} onClick={() => void keep()}>
          {t("keepIt")}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
