import { lazy, Suspense, useState } from "react";
import { useNavigate } from "react-router";
import { isOurs, type SetState } from "#core/words/case-states";
import type { Change } from "#server/cases/changes";
import type { ConversationMessage } from "#server/cases/conversation";
import type { OpenCase } from "#server/answering/open";
import { RowMenu } from "../../ui/row-menu";
import { useToast } from "../../ui/toast";
import { usePerson } from "../../ui/use-person";
import type { Wanted } from "./change-dialog";
import { useChange } from "./use-change";
import { t } from "../../words/answering";

const ChangeDialog = lazy(() => import("./change-dialog"));
const AsideDialog = lazy(() => import("./aside-dialog"));
const AssignDialog = lazy(() => import("./assign-dialog"));
const DoneDialog = lazy(() => import("./done-dialog"));
const PromiseDialog = lazy(() => import("./promise-dialog"));
const TimeDialog = lazy(() => import("../time/time-dialog"));
const TagsDialog = lazy(() => import("./tags-dialog"));
const RuleDialog = lazy(() => import("./rule-dialog"));
const TopicDialog = lazy(() => import("./topic-dialog"));
const ForwardDialog = lazy(() => import("./forward-dialog"));

type Of = Pick<
  OpenCase,
  "number" | "label" | "channel" | "recipient" | "status" | "assignee" | "topic" | "tags" | "done" | "times"
> & {
  customer: { name: string };
};

/** What can be done with a case, beside answering it. */
export function CaseMenu({ open }: { open: Of }) {
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [asks, setAsks] = useState<
    "aside" | "assign" | "topic" | "tags" | "promise" | "done" | "time" | null
  >(null);
  const me = usePerson();
  const { change } = useChange(open.number);
  const toast = useToast();
  const make = (asked: Change) => async () => {
    const refused = await change(asked);
    if (refused !== null) toast({ words: refused, tone: "stop" });
  };
  const into = (state: SetState, words: string) =>
    open.status === state ? [] : [{ words, run: () => void make({ what: "state", state })() }];
  const close = () => {
    setWanted(null);
    setAsks(null);
  };
  const navigate = useNavigate();
  return (
    <>
      <RowMenu
        label={t("moreWithThisCase")}
        actions={[
          ...(isOurs(open.status) && open.status !== "waiting on a colleague"
            ? []
            : into("open", t("takeItUpAgain"))),
          ...into("settled", t("settleIt")),
          ...into("waiting on the customer", t("itWaitsOnTheCustomer")),
          ...into("waiting on a colleague", t("itWaitsOnAColleague")),
          ...(open.status === "set aside"
            ? []
            : [{ words: t("setItAsideMore"), run: () => setAsks("aside") }]),
          ...(open.assignee?.id === me
            ? []
            : [{ words: t("itIsMine"), run: () => void make({ what: "assign", to: me })() }]),
          { words: t("giveItToAColleague"), run: () => setAsks("assign") },
          ...(open.assignee === null
            ? []
            : [{ words: t("itIsNobodys"), run: () => void make({ what: "assign", to: null })() }]),
          { words: t("weHavePromised"), run: () => setAsks("promise") },
          { words: t("sayWhatWasDone"), run: () => setAsks("done") },
          { words: t("setTheTimeRight"), run: () => setAsks("time") },
          { words: t("setTheTopicMore"), run: () => setAsks("topic") },
          { words: t("setTheTagsMore"), run: () => setAsks("tags") },
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
      <Suspense>
        {wanted && (
          <ChangeDialog
            wanted={wanted}
            number={open.number}
            label={open.label}
            customer={open.customer.name}
            onClose={close}
          />
        )}
        {asks === "aside" && <AsideDialog number={open.number} label={open.label} onClose={close} />}
        {asks === "promise" && <PromiseDialog number={open.number} label={open.label} onClose={close} />}
        {asks === "done" && (
          <DoneDialog number={open.number} label={open.label} done={open.done} onClose={close} />
        )}
        {asks === "time" && <TimeDialog number={open.number} times={open.times} onClose={close} />}
        {asks === "topic" && (
          <TopicDialog number={open.number} label={open.label} topic={open.topic} onClose={close} />
        )}
        {asks === "tags" && (
          <TagsDialog number={open.number} label={open.label} tags={open.tags} onClose={close} />
        )}
        {asks === "assign" && <AssignDialog number={open.number} label={open.label} onClose={close} />}
      </Suspense>
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
  const [wanted, setWanted] = useState<"forward" | "move" | "rule" | null>(null);
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
          ...(message.direction === "in" && message.kind === "message"
            ? [{ words: t("aRuleShouldHaveAnsweredMore"), run: () => setWanted("rule") }]
            : []),
        ]}
      />
      <Suspense>
        {wanted === "forward" && <ForwardDialog message={message} onClose={close} />}
        {wanted === "rule" && <RuleDialog message={message} onClose={close} />}
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
