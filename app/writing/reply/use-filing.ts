import { useEffect } from "react";
import { useWatch } from "react-hook-form";
import { filingSchema, type FilingChange, type FilingInput } from "#core/forms/library";
import type { Filing, OpenReply } from "#server/writing/open";
import { useFormOf, type FormOf } from "../../ui/form";
import { filingChange } from "./unpublished";

/** How a reply is filed, as it is set on the screen. */
export interface FilingHandle {
  form: FormOf<Filing, FilingInput>;
  filing: Filing;
}

/** The filing under way. @param onChange called with what is otherwise than it is filed, as soon as it can be filed so */
export function useFiling(open: OpenReply, onChange: (change: FilingChange) => void): FilingHandle {
  const form = useFormOf<Filing, FilingInput>(filingSchema, open.filing);
  const filing = useWatch({ control: form.control, compute: (values: Filing) => values });
  const { filed } = open;
  useEffect(() => {
    const { unsubscribe } = form.watch((_values, { name }) => {
      if (name === undefined) return;
      void form.trigger().then((fits) => {
        if (fits) onChange(filingChange(filed, form.getValues()));
      });
    });
    return unsubscribe;
  }, [form, filed, onChange]);
  return { form, filing };
}
