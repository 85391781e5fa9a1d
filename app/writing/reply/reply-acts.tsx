import * as z from "zod/mini";
import type { BulkInput } from "#server/replies/filing";
import type { OpenReply } from "#server/writing/open";
import { useUndoBulk } from "../../shelves/use-undo-bulk";
import { useAct } from "../../ui/act";
import { RowMenu, type RowAction } from "../../ui/row-menu";
import { useToast } from "../../ui/toast";

const done = z.object({ id: z.nullable(z.number()), words: z.string() });

/** What can be done with a reply as a whole; each can be undone. */
export function ReplyActs({ open }: { open: OpenReply }) {
  const act = useAct();
  const toast = useToast();
  const undo = useUndoBulk();
  const change = async (what: BulkInput) => {
    const result = await act("/shelves/bulk", { keys: [open.key], change: what }, done);
    if (!result.ok) {
      toast({ words: result.problem, tone: "stop" });
      return;
    }
    const { id, words } = result.data;
    if (id === null) toast({ words: "Nothing to change." });
    else toast({ words: `${words}.`, action: { label: "Undo", run: () => undo(id) } });
  };
  const elsewhere = open.shelves.filter((shelf) => shelf.mayPublish && shelf.key !== open.shelf.key);
  const actions: RowAction[] = [{ words: "Copy", to: `/replies/new?from=${open.key}` }];
  if (open.mayPublish) {
    if (elsewhere.length > 0)
      actions.push({
        words: "Move to",
        choices: elsewhere.map(({ key, name }) => ({
          words: name,
          run: () => void change({ what: "move", shelf: key }),
        })),
      });
    actions.push(
      open.state === "retired"
        ? { words: "Restore", run: () => void change({ what: "restore" }) }
        : { words: "Retire", run: () => void change({ what: "retire" }) },
    );
  }
  return <RowMenu label="More for this reply" actions={actions} />;
}
