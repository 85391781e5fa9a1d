import { useCallback, useState } from "react";
import * as z from "zod/mini";
import type { AttachmentRef } from "#core/compose/slip";
import { useAct } from "./act";

const stored = z.object({ id: z.string(), name: z.string(), contentType: z.string(), size: z.number() });

/** Stores files of a writer's. @returns how, and what the last refusal said */
export function useUpload(): {
  upload: (file: File, picture: boolean) => Promise<AttachmentRef | null>;
  problem: string | null;
} {
  const [problem, setProblem] = useState<string | null>(null);
  const act = useAct();
  const upload = useCallback(
    async (file: File, picture: boolean) => {
      const form = new FormData();
      form.set("file", file);
      if (picture) form.set("picture", "yes");
      const done = await act("/replies/files", form, stored);
      setProblem(done.ok ? null : done.problem);
      return done.ok ? done.data : null;
    },
    [act],
  );
  return { upload, problem };
}
