import { enGB } from "react-day-picker/locale";
import { DayPicker } from "react-day-picker";

interface Props {
  chosen: Date | undefined;
  onChoose: (day: Date | undefined) => void;
  earliest?: Date | undefined;
  latest?: Date | undefined;
}

const STEP = "flex size-7 items-center justify-center hover:bg-wash disabled:opacity-30";

/** A month to choose a day from: arrow keys go by day and week, Page Up and Down by month. */
export default function Calendar({ chosen, onChoose, earliest, latest }: Props) {
  const outside = [...(earliest ? [{ before: earliest }] : []), ...(latest ? [{ after: latest }] : [])];
  return (
    <DayPicker
      mode="single"
      autoFocus
      locale={enGB}
      selected={chosen}
      onSelect={onChoose}
      {...(chosen ? { defaultMonth: chosen } : {})}
      disabled={outside}
      classNames={{
        root: "text-sm",
        months: "relative",
        month_caption: "flex h-7 items-center pl-1.5 font-bold",
        nav: "absolute top-0 right-0 flex",
        button_previous: STEP,
        button_next: STEP,
        chevron: "size-4 fill-current",
        month_grid: "mt-1.5 border-collapse",
        weekday: "size-8 text-xs font-normal text-soft",
        day: "p-0 text-center",
        day_button: "size-8 tabular-nums hover:bg-wash disabled:opacity-30",
        today: "font-bold underline underline-offset-4",
        selected: "bg-ink text-sheet [&_button]:hover:bg-ink",
        outside: "text-soft",
      }}
    />
  );
}
