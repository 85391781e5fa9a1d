import { Link } from "react-router";
import type { FoundMessage, Stretch } from "#server/record/search";
import { channelName } from "#core/words/named";
import { Time } from "../ui/time";
import { Sentence } from "../words/sentence";
import { t } from "../words/record";

/** A message that was found, with the words around those that were looked for. */
export function FoundRow({ found }: { found: FoundMessage }) {
  const said = `/cases/${found.case}/record?message=${found.id}`;
  const customer = (
    <Link key="1" to={`/customers/${found.customerId}`} className="hover:underline">
      {found.customer}
    </Link>
  );
  return (
    <li className="grid gap-x-5 border-t border-line py-2.5 md:grid-cols-[7rem_17rem_1fr]">
      <Time at={found.at} className="text-sm text-soft" />
      <p className="min-w-0 text-sm [overflow-wrap:anywhere]">
        {found.by === null ? (
          <strong>{customer}</strong>
        ) : (
          <Sentence of={t} name="toCustomer" parts={[<strong key="0">{found.by}</strong>, customer]} />
        )}
        <span className="block text-soft">
          {[
            found.label,
            channelName(found.channel),
            found.topic,
            found.organisation,
            found.state === "refused" ? t("refusedSmall") : null,
          ]
            .filter((part) => part !== null)
            .join(", ")}
        </span>
      </p>
      <p className="min-w-0 [overflow-wrap:anywhere]">
        <Link data-found to={said} className="block hover:bg-wash">
          {found.subject.length > 0 && (
            <span className="block text-sm text-soft">
              <Stretches of={found.subject} />
            </span>
          )}
          <span className="letter line-clamp-3">
            <Stretches of={found.words} />
          </span>
        </Link>
      </p>
    </li>
  );
}

function Stretches({ of }: { of: Stretch[] }) {
  return of.map((part, index) =>
    part.found ? (
      <mark key={index} className="bg-look-wash text-inherit">
        {part.text}
      </mark>
    ) : (
      <span key={index}>{part.text}</span>
    ),
  );
}
