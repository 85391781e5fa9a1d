import { wellFormed } from "./well-formed";

/** Marks that turn the direction of what follows, marks without a width, and control characters. */
const DECEIVING = /[\u0000-\u001f\u007f-\u009f\u061c\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]/g;
const LONGEST = 200;

/** Kinds of file that a system may run when they are opened. */
const PROGRAMS =
  /\.(?:appimage|msc|exe|com|scr|pif|bat|cmd|msi|msp|msix|appx|ps1|psm1|vbs|vbe|vb|js|jse|mjs|wsf|wsh|hta|cpl|jar|lnk|url|reg|inf|scf|chm|iso|img|vhd|vhdx|dmg|pkg|app|apk|deb|rpm|sh|bash|command|desktop)$/i;
/** Documents that hold macros, which are programs. */
const WITH_MACROS = /\.(?:docm|dotm|xlsm|xltm|xlam|pptm|potm|ppam)$/i;

/**
 * A file's name as it is: marks that would show its letters in another order are taken out, so that its ending is its ending.
 * @param name as whoever sent it wrote it
 */
export function fileName(name: string): string {
  const clean = wellFormed(name).replace(DECEIVING, "").replace(/[/\\]/g, "_").trim();
  if (clean.length <= LONGEST) return clean === "" ? "unnamed" : clean;
  const ending = /\.[^.]{1,12}$/.exec(clean)?.[0] ?? "";
  return `${clean.slice(0, LONGEST - ending.length - 1)}…${ending}`;
}

/** Whether a file is a program, or may hold one that runs when it is opened. */
export function isProgram(name: string): boolean {
  return PROGRAMS.test(opened(name)) || holdsMacros(name);
}

/** Whether a file is a document that holds macros. */
export function holdsMacros(name: string): boolean {
  return WITH_MACROS.test(opened(name));
}

/** A file's name as a system reads it that opens the file: dots and spaces at its end are nothing. */
function opened(name: string): string {
  return fileName(name).replace(/[. ]+$/, "");
}

/** Whether a kind of file (media type) is a picture that every mail program shows. */
export function isPicture(contentType: string): boolean {
  return /^image\/(?:png|jpeg|gif|webp)$/.test(contentType);
}
