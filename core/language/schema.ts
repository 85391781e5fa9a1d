import * as z from "zod/mini";
import { t } from "../words/forms";
import { isLanguageTag } from "./tag";

/** A language as it comes from outside. */
export const languageSchema = z
  .string()
  .check(z.minLength(2), z.maxLength(35), z.refine(isLanguageTag, t.error("notALanguage")));
