import { holdsMacros, isProgram } from "../text/file-name";
import { t } from "../words/letters";

/** A file as far as its risk is told by it. */
export interface FileFacts {
  name: string;
  /** Media type, as in `application/pdf`; empty where it is not known. */
  contentType: string;
  /** In bytes. */
  size: number;
}

/** Kinds that many mail services turn away, as the bytes tell them: programs, and documents with macros. */
const PROGRAM_TYPE =
  /^application\/(?:x-msdownload|x-dosexec|x-elf|x-mach-binary|x-apple-diskimage|x-msi|x-executable|x-sh|vnd\.android\.package-archive|java-archive|vnd\.microsoft\.portable-executable)$/iu;
const MACRO_TYPE = /^application\/vnd\.ms-[a-z]+\.[a-z.]*macroenabled(?:\.12)?$/iu;

/** Over so many bytes (10 MB) a file is refused by many mailboxes. */
export const LARGE_FILE_BYTES = 10 * 1024 * 1024;

/**
 * Why somebody should think twice before sending a file, as the end of a sentence about it: `is a program: …`.
 * @returns null where nothing speaks against it
 */
export function riskOf({ name, contentType, size }: FileFacts): string | null {
  if (PROGRAM_TYPE.test(contentType) || (isProgram(name) && !holdsMacros(name))) return t("isAProgram");
  if (holdsMacros(name) || MACRO_TYPE.test(contentType)) return t("holdsMacros");
  if (size > LARGE_FILE_BYTES) return t("isLarge");
  return null;
}
