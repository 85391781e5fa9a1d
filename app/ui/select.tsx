import { Select as Radix } from "radix-ui";
import { useNonce } from "./nonce";
import { OPENER, OpenerSign } from "./opener";

export type Option<Value extends string = string> = readonly [value: Value, words: string];

/** Options of few, as they are said. */
export function said<Value extends string>(
  values: readonly Value[],
  say: (value: Value) => string,
): Option<Value>[] {
  return values.map((value) => [value, say(value)]);
}

/** Options that read as their values. */
export function sameWords<Value extends string>(values: readonly Value[]): Option<Value>[] {
  return values.map((value) => [value, value]);
}

interface Props<Value extends string> {
  /** Name for who does not see it; where a `label` element names it, left out. */
  label?: string;
  value: Value;
  options: readonly Option<Value>[];
  onChange: (value: Value) => void;
  /** Where the hand goes once it is closed; back to it, by default. */
  onClosed?: () => void;
  /** Shown where no option has the value. */
  placeholder?: string;
  /** Sent with the form that it stands in. */
  name?: string;
  id?: string;
  className?: string;
  disabled?: boolean;
  "aria-invalid"?: boolean;
  "aria-required"?: boolean;
  "aria-describedby"?: string | undefined;
}

/** Radix keeps the empty value for “nothing chosen”; ours may be an option like any other. */
const asItem = (value: string) => `=${value}`;

/** One of few: opened by click, Enter or the arrow keys, chosen by typing ahead. */
export function Select<Value extends string>({
  label,
  value,
  options,
  onChange,
  onClosed,
  placeholder = "",
  name,
  className = "lined-field",
  disabled = false,
  ...attributes
}: Props<Value>) {
  const nonce = useNonce();
  const chosen = options.find(([one]) => one === value);
  return (
    <Radix.Root
      value={chosen ? asItem(value) : ""}
      disabled={disabled}
      onValueChange={(item) => {
        const next = options.find(([one]) => asItem(one) === item);
        if (next) onChange(next[0]);
      }}
    >
      {name !== undefined && <input type="hidden" name={name} value={value} />}
      <Radix.Trigger
        {...attributes}
        {...(label === undefined ? {} : { "aria-label": label })}
        className={`${OPENER} disabled:opacity-50 ${className}`}
      >
        <span className="truncate">
          <Radix.Value placeholder={placeholder}>{chosen?.[1] ?? placeholder}</Radix.Value>
        </span>
        <Radix.Icon>
          <OpenerSign />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={2}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            if (!onClosed) return;
            event.preventDefault();
            onClosed();
          }}
          className="z-50 max-h-[min(24rem,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) border border-board bg-sheet shadow-md"
        >
          <Radix.Viewport {...(nonce === undefined ? {} : { nonce })} className="py-1">
            {options.map(([one, words]) => (
              <Radix.Item
                key={one}
                value={asItem(one)}
                className="cursor-pointer border-l-[3px] border-transparent py-1 pr-4 pl-2.5 outline-none select-none data-highlighted:bg-wash data-[state=checked]:border-accent data-[state=checked]:font-semibold"
              >
                <Radix.ItemText>{words}</Radix.ItemText>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
