import { useEffect } from "react";
import { useWatch } from "react-hook-form";
import { filingSchema, type FilingInput } from "#core/forms/library";
import type { Filing, OpenReply } from "#server/writing/open";
import { useFormOf, type FormOf } from "../../ui/form";
import { filingChange } from "./unpublished";
import type { ReplyHandle } from "./use-reply";

/** How a reply is filed, as it is set on the screen. */
export interface FilingHandle {
  form: FormOf<Filing, FilingInput>;
  filing: Filing;
}

/** The filing under way: what is otherwise than it is filed is saved with the words, as soon as it can be filed so. */
export function useFiling(open: OpenReply, { file, back }: Pick<ReplyHandle, "file" | "back">): FilingHandle {
  const form = useFormOf<Filing, FilingInput>(filingSchema, open.filing);
  const filing = useWatch({ control: form.control, compute: (values: Filing) => values });
  const { filed } = open;
  useEffect(() => {
    const { unsubscribe } = form.watch((_values, { name }) => {
      if (name === undefined) return;
      void form.trigger().then((fits) => {
        if (fits) file(filingChange(filed, form.getValues()));
      });
    });
    return unsubscribe;
  }, [form, filed, file]);
  useEffect(() => {
    if (back) form.reset({ ...filed, ...back.filing });
  }, [form, filed, back]);
  return { form, filing };
}
