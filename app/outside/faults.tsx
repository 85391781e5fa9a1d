import { Form } from "react-router";
import type { Faults } from "#server/outside/mailboxes";
import { Button } from "../ui/button";

/** What the simulated outside does wrong, to see how the program bears it. */
export function FaultSwitches({ faults, problem }: { faults: Faults; problem: string | null }) {
  const calm = faults.mail === "fine" && faults.bookings === "fine" && faults.bookingDelay < 1000;
  return (
    <details className="mt-auto border-t border-line px-5 py-3 text-sm" open={!calm}>
      <summary className="font-semibold">
        {calm ? "All is well out there" : "Something is wrong out there"}
      </summary>
      <Form
        method="post"
        action="/outside"
        className="mt-3 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2"
      >
        <label htmlFor="fault-mail">Mail server</label>
        <select
          id="fault-mail"
          name="mail"
          defaultValue={faults.mail}
          key={faults.mail}
          className="lined-field bg-sheet"
        >
          <option value="fine">takes mail</option>
          <option value="busy">is busy (451)</option>
          <option value="refuses">refuses (550)</option>
        </select>
        <label htmlFor="fault-bookings">Bookings</label>
        <select
          id="fault-bookings"
          name="bookings"
          defaultValue={faults.bookings}
          key={faults.bookings}
          className="lined-field bg-sheet"
        >
          <option value="fine">answer</option>
          <option value="broken">are broken (500)</option>
        </select>
        <label htmlFor="fault-delay">after, ms</label>
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
        {problem && <p className="col-span-2 text-stop">{problem}</p>}
        <Button type="submit" look="quiet" className="justify-self-start">
          Make it so
        </Button>
      </Form>
    </details>
  );
}
