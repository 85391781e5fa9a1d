import { useCallback } from "react";
import { useWatch } from "react-hook-form";
import * as z from "zod/mini";
import { filingSchema, type FilingInput } from "#core/forms/library";
import type { Filing, OpenReply } from "#server/writing/open";
import { useAct } from "../../ui/act";
import { taken, useFormOf, type FormOf } from "../../ui/form";
import { useToast } from "../../ui/toast";

const saved = z.object({ changed: z.string() });

/** How a reply is filed, as it is set on the screen. */
export interface FilingHandle {
  form: FormOf<Filing, FilingInput>;
  filing: Filing;
  /** Whether it is set otherwise than it is stored. */
  changed: boolean;
  /** Stores it. @returns whether it is stored */
  save: () => Promise<boolean>;
}

export function useFiling(open: OpenReply): FilingHandle {
  const form = useFormOf<Filing, FilingInput>(filingSchema, open.filing);
  const filing = useWatch({ control: form.control, compute: (values: Filing) => values });
  const act = useAct();
  const toast = useToast();
  const save = useCallback(async () => {
    let stored = false;
    await form.handleSubmit(async (input) => {
      const outcome = await act(`/replies/${open.key}/filing`, input, saved);
      if (!taken(form, outcome) || !outcome.ok) return;
      form.reset({ ...form.getValues(), changed: outcome.data.changed });
      toast({ words: "Filed." });
      stored = true;
    })();
    return stored;
  }, [form, act, open.key, toast]);
  return { form, filing, changed: form.formState.isDirty, save };
}
