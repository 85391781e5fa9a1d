import { useState } from "react";
import { Form, useNavigation, useSearchParams } from "react-router";
import { Button } from "../ui/button";
import { Field } from "../ui/field";
import { Select } from "../ui/select";
import { t } from "../words/outside";

interface Props {
  name: string;
  teams: { name: string; to: string }[];
  fields: Record<string, string[] | undefined>;
  problem: string | null;
  /** The message that is answered. */
  answer?: { to: string; subject: string; inReplyTo: string | null; references: string | null };
  action?: string;
}

/** Writing to us as the customer: it goes in over SMTP, like real mail. */
export function WriteToUs({ name, teams, fields, problem, answer, action }: Props) {
  const busy = useNavigation().state !== "idle";
  const [params] = useSearchParams();
  const known = answer ? teams.some((team) => team.to === answer.to) : true;
  const [to, setTo] = useState((answer && known ? answer.to : teams[0]?.to) ?? "");
  return (
    <section className="@container mt-8 max-w-2xl border-t border-line pt-5">
      <h3 className="font-bold">{answer ? t("answerUs") : t("writeToUs")}</h3>
      {params.get("sent") && !problem && (
        <p role="status" className="mt-2 border-l-[3px] border-accent bg-wash px-3 py-2">
          {t("sentItIsACaseNow")}
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-2 border-l-[3px] border-stop bg-stop-wash px-3 py-2 text-stop">
          {t("itWasNotTakenProblem", { problem })}
        </p>
      )}
      <Form method="post" {...(action ? { action } : {})} className="mt-3 flex flex-col gap-4" noValidate>
        <input type="hidden" name="fromName" value={name} />
        {answer?.inReplyTo && <input type="hidden" name="inReplyTo" value={answer.inReplyTo} />}
        {answer?.references && <input type="hidden" name="references" value={answer.references} />}
        <div className="grid gap-4 @md:grid-cols-2">
          <Field label={t("to")} problem={fields.to?.[0]}>
            {(attributes) => (
              <Select
                {...attributes}
                name="to"
                value={to}
                options={teams.map((team) => [team.to, `${team.name}, ${team.to}`] as const)}
                onChange={setTo}
              />
            )}
          </Field>
          <Field label={t("subject")} problem={fields.subject?.[0]}>
            {(attributes) => <input {...attributes} name="subject" defaultValue={answer?.subject ?? ""} />}
          </Field>
        </div>
        <Field label={t("message")} problem={fields.text?.[0]}>
          {(attributes) => (
            <textarea {...attributes} name="text" rows={6} className="boxed-field font-serif text-letter" />
          )}
        </Field>
        <Button type="submit" disabled={busy} className="self-start">
          {answer ? t("sendTheAnswer") : t("send")}
        </Button>
      </Form>
    </section>
  );
}
