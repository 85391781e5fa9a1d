import { useState } from "react";
import { Form } from "react-router";
import type { Faults } from "#server/outside/mailboxes";
import { Button } from "../ui/button";
import { Disclosure } from "../ui/disclosure";
import { Select, type Option } from "../ui/select";
import { t } from "../words/outside";

/** What the simulated outside does wrong, to see how the program bears it. */
export function FaultSwitches({
  faults,
  problem,
  hasBookings,
}: {
  faults: Faults;
  problem: string | null;
  /** Whether the house asks the booking system at all. */
  hasBookings: boolean;
}) {
  const calm =
    faults.mail === "fine" &&
    faults.sms === "fine" &&
    faults.chat === "fine" &&
    faults.bookings === "fine" &&
    faults.bookingDelay < 1000;
  return (
    <Disclosure
      key={String(calm)}
      className="mt-auto border-t border-line px-5 py-3 text-sm"
      open={!calm}
      words={calm ? t("allIsWellOutThere") : t("somethingIsWrongOutThere")}
    >
      <Form
        method="post"
        action="/outside"
        className="mt-3 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2"
      >
        <label htmlFor="fault-mail">{t("mailServer")}</label>
        <Choice key={faults.mail} id="fault-mail" name="mail" now={faults.mail} options={MAIL()} />
        <label htmlFor="fault-sms">{t("shortMessages")}</label>
        <Choice key={`sms-${faults.sms}`} id="fault-sms" name="sms" now={faults.sms} options={SMS()} />
        <label htmlFor="fault-chat">{t("chatWindow")}</label>
        <Choice key={`chat-${faults.chat}`} id="fault-chat" name="chat" now={faults.chat} options={CHAT()} />
        {hasBookings ? (
          <>
            <label htmlFor="fault-bookings">{t("bookings")}</label>
            <Choice
              key={faults.bookings}
              id="fault-bookings"
              name="bookings"
              now={faults.bookings}
              options={BOOKINGS()}
            />
            <label htmlFor="fault-delay">{t("afterMs")}</label>
            <input
              id="fault-delay"
              name="bookingDelay"
              type="number"
              min={0}
              max={60_000}
              defaultValue={faults.bookingDelay}
              key={faults.bookingDelay}
              className="lined-field"
            />
          </>
        ) : (
          <>
            <input type="hidden" name="bookings" value={faults.bookings} />
            <input type="hidden" name="bookingDelay" value={faults.bookingDelay} />
          </>
        )}
        {problem && <p className="col-span-2 text-stop">{problem}</p>}
        <Button type="submit" look="quiet" className="justify-self-start">
          {t("switch")}
        </Button>
      </Form>
    </Disclosure>
  );
}

const MAIL = (): Option[] => [
  ["fine", t("takesMail")],
  ["slow", t("isSlow")],
  ["busy", t("isBusy451")],
  ["refuses", t("refuses550")],
  ["down", t("isDown421")],
  ["bounces", t("takesAndReturns")],
];
const SMS = (): Option[] => [
  ["fine", t("arriveSoon")],
  ["late", t("arriveLate")],
  ["fails", t("failLater")],
  ["refuses", t("areRefused")],
  ["down", t("gatewayIsDown")],
];
const CHAT = (): Option[] => [
  ["fine", t("keepsItsConnection")],
  ["drops", t("losesItsConnection")],
];
const BOOKINGS = (): Option[] => [
  ["fine", t("answer")],
  ["broken", t("areBroken500")],
  ["wrong", t("answerNonsense")],
];

function Choice({ now, ...choice }: { id: string; name: string; now: string; options: Option[] }) {
  const [value, setValue] = useState(now);
  return <Select value={value} onChange={setValue} {...choice} />;
}
