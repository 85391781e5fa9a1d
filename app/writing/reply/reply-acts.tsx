import type { BulkInput } from "#server/replies/filing";
import type { OpenReply } from "#server/writing/open";
import { useBulk } from "../../shelves/use-bulk";
import type { RowAction } from "../../ui/row-actions";
import { RowMenu } from "../../ui/row-menu";
import { t } from "../../words/writing";

/** What can be done with a reply as a whole; each can be undone. */
export function ReplyActs({ open }: { open: OpenReply }) {
  const bulk = useBulk();
  const change = (what: BulkInput) => void bulk.make({ keys: [open.key] }, what);
  const elsewhere = open.shelves.filter((shelf) => shelf.mayPublish && shelf.key !== open.shelf.key);
  const actions: RowAction[] = [{ words: t("copy"), to: `/replies/new?from=${open.key}` }];
  if (open.mayPublish) {
    if (elsewhere.length > 0)
      actions.push({
        words: t("moveTo"),
        choices: elsewhere.map(({ key, name }) => ({
          words: name,
          run: () => change({ what: "move", shelf: key }),
        })),
      });
    actions.push(
      open.state === "retired"
        ? { words: t("restore"), run: () => change({ what: "restore" }) }
        : { words: t("retire"), run: () => change({ what: "retire" }) },
    );
  }
  return <RowMenu label={t("moreForThisReply")} actions={actions} />;
}
