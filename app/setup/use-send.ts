import { useState } from "react";
import { useRevalidator } from "react-router";
import * as z from "zod/mini";
import { post } from "../ui/post";
import { useToast } from "../ui/toast";

const done = z.object({});

/** Sends a change to a page of the setup, says that it is kept or why not, and loads the page's data again. */
export function useSend(url: string): {
  send: (body: object, words?: string) => Promise<boolean>;
  problem: string | null;
} {
  const [problem, setProblem] = useState<string | null>(null);
  const { revalidate } = useRevalidator();
  const toast = useToast();
  const send = async (body: object, words = "Kept.") => {
    const result = await post(url, body, done);
    setProblem(result.ok ? null : result.problem);
    if (result.ok) toast({ words });
    await revalidate();
    return result.ok;
  };
  return { send, problem };
}
