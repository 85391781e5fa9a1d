import { lazy, Suspense, useState } from "react";
import { useNavigate } from "react-router";
import type { ConversationMessage } from "#server/cases/conversation";
import type { OpenCase } from "#server/answering/open";
import { RowMenu } from "../../ui/row-menu";
import { useToast } from "../../ui/toast";
import type { Wanted } from "./change-dialog";
import { useChange } from "./use-change";
import { t } from "../../words/answering";

const ChangeDialog = lazy(() => import("./change-dialog"));
const ForwardDialog = lazy(() => import("./forward-dialog"));

type Of = Pick<OpenCase, "number" | "label" | "channel" | "recipient"> & { customer: { name: string } };

/** What can be done with a case, beside answering it. */
export function CaseMenu({ open }: { open: Of }) {
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const navigate = useNavigate();
  return (
    <>
      <RowMenu
        label={t("moreWithThisCase")}
        actions={[
          { words: t("joinAnotherCase"), run: () => setWanted({ what: "join" }) },
          { words: t("moveToAnotherCustomer"), run: () => setWanted({ what: "move" }) },
          ...(open.channel === "email" && open.recipient !== null
            ? [
                {
                  words: t("writeAnew"),
                  run: () => void navigate(`/write?to=${encodeURIComponent(open.recipient ?? "")}`),
                },
              ]
            : []),
        ]}
      />
      {wanted && (
        <Suspense>
          <ChangeDialog
            wanted={wanted}
            number={open.number}
            label={open.label}
            customer={open.customer.name}
            onClose={() => setWanted(null)}
          />
        </Suspense>
      )}
    </>
  );
}

/** What can be done with one message of a case. */
export function MessageMenu({
  open,
  message,
  first,
}: {
  open: Of;
  message: ConversationMessage;
  /** Whether it is the first of its case. */
  first: boolean;
}) {
  const [wanted, setWanted] = useState<"forward" | "move" | null>(null);
  const { change } = useChange(open.number);
  const toast = useToast();
  const split = async () => {
    const refused = await change({ what: "split", message: message.id });
    if (refused !== null) toast({ words: refused, tone: "stop" });
  };
  const close = () => setWanted(null);
  return (
    <>
      <RowMenu
        label={t("moreWithThisMessage", { from: message.from })}
        className="self-center"
        actions={[
          { words: t("forward"), run: () => setWanted("forward") },
          ...(first ? [] : [{ words: t("aCaseOfItsOwnFromHere"), run: () => void split() }]),
          { words: t("moveToAnotherCase"), run: () => setWanted("move") },
        ]}
      />
      <Suspense>
        {wanted === "forward" && <ForwardDialog message={message} onClose={close} />}
        {wanted === "move" && (
          <ChangeDialog
            wanted={{ what: "move message", message: message.id }}
            number={open.number}
            label={open.label}
            customer={open.customer.name}
            onClose={close}
          />
        )}
      </Suspense>
    </>
  );
}
