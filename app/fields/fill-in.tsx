import { lazy, Suspense, useState } from "react";
import { t } from "../words/ui";
import type { Fillable } from "./fill-dialog";

const FillDialog = lazy(() => import("./fill-dialog"));

/** What opens the house's own fields for filling in. */
export function FillIn({
  owners,
  topic = null,
  className = "quiet-link",
}: {
  owners: Fillable[];
  topic?: string | null;
  className?: string;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className={className} onClick={() => setOpen(true)}>
        {t("fillInMore")}
      </button>
      {open && (
        <Suspense>
          <FillDialog owners={owners} topic={topic} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
