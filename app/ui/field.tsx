import { useId, type ReactNode } from "react";

interface Props {
  label: string;
  problem?: string | undefined;
  hint?: string | undefined;
  children: (attributes: {
    id: string;
    "aria-invalid": boolean;
    "aria-describedby": string | undefined;
    className: string;
  }) => ReactNode;
}

/** The one form field: label, control, and what is wrong with it. */
export function Field({ label, problem, hint, children }: Props) {
  const id = useId();
  const note = problem ?? hint;
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {children({
        id,
        "aria-invalid": problem !== undefined,
        "aria-describedby": note ? `${id}-note` : undefined,
        className: "boxed-field",
      })}
      {note && (
        <p id={`${id}-note`} className={problem ? "text-stop" : "text-sm text-soft"}>
          {note}
        </p>
      )}
    </div>
  );
}
