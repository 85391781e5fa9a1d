import { clampRgb, filterHueRotate, filterInvert, wcagContrast } from "culori";
import { INK, PAPER, SMALL_INK, type Stationery } from "./stationery";

/** How well a part of a letter stands out from its page, as contrast ratios of 1 to 21 (WCAG 2.2). */
export interface PaperContrast {
  /** The words, the header and footer around them, or the rule under the header. */
  part: "words" | "around" | "rule";
  /** On the page as it is set. */
  light: number;
  /** As mail readers show it that turn light letters dark: its colours inverted, their hues kept. */
  dark: number;
  /** What it needs to be made out: 4.5 for words (success criterion 1.4.3), 3 for what is no text (1.4.11). */
  least: 4.5 | 3;
}

const invert = filterInvert(1);
const rotate = filterHueRotate(180);

/** A colour as readers show it that invert letters: CSS filter effects `invert(1) hue-rotate(180deg)`. @param colour #rrggbb */
function inverted(colour: string) {
  const flipped = invert(colour);
  if (!flipped) throw new Error(`“${colour}” is no colour`);
  return clampRgb(rotate(flipped));
}

/** The contrasts of a stationery's colours with its page. */
export function contrastsOf(
  paper: Pick<Stationery, "accent" | "textColour" | "background">,
): PaperContrast[] {
  const page = paper.background ?? PAPER;
  const contrast = (part: PaperContrast["part"], colour: string, least: PaperContrast["least"]) => ({
    part,
    light: wcagContrast(colour, page),
    dark: wcagContrast(inverted(colour), inverted(page)),
    least,
  });
  return [
    contrast("words", paper.textColour ?? INK, 4.5),
    contrast("around", SMALL_INK, 4.5),
    contrast("rule", paper.accent, 3),
  ];
}
