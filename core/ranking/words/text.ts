import { splitQuoted } from "../../mail/quoting";

/** Words that say nothing of what an inquiry is about, in English, German, French and Spanish, without accents. */
const COMMON = new Set(
  (
    "the a an and or but if of to in on at by for with from is are was were be been am i you he she it we they me my your " +
    "our his her its their this that these those there here do does did have has had will would can could should not no so " +
    "as just what which who when where how why hello hi hey dear thanks thank please regards cheers one two us him any all " +
    "also about get got getting need needs anything something everything nothing some still after before again like want " +
    "know say said tell told make made go going goes went come came very really much more most than then now up out into over " +
    "too only even ever never yet well way lot bit dont doesnt didnt isnt wasnt cant wont im ive id its thats theres " +
    "der die das den dem des ein eine einen einem einer und oder aber ich du er sie es wir ihr mich mir uns ihnen mein meine unser unsere " +
    "ist sind war waren sein haben hat hatte wird werden kann konnen mit von zu zum zur bei auf aus fur im in an am um als wie was wo wann " +
    "warum nicht kein keine noch nur auch schon dass wenn hallo guten tag bitte danke gru gruss grusse freundlichen lieben " +
    "le la les un une des du de et ou mais je tu il elle nous vous ils me moi mon ma mes notre nos votre vos est sont etait avoir ai avez " +
    "avons pour par avec dans sur que qui quoi ne pas plus ce cet cette ces au aux bonjour merci cordialement si se sa ses son " +
    "el los las una unos del y o pero yo mi mis nuestro nuestra su sus es son era estar esta estoy tengo tiene hay para por con en " +
    "que como cuando donde no si ya muy mas lo al hola gracias saludos buenos dias"
  ).split(" "),
);

/** Subjects that nobody chose. */
const EMPTY_SUBJECT = /^\s*(?:\(no subject\)|hello|hi|hey|question|help)?\s*$/i;
const REPLY_PREFIX = /^(?:\s*(?:re|fwd?|aw|wg|tr|rv)\s*:)+\s*/i;

/**
 * The words of a text in small letters, without accents, in their order; numbers are words too.
 * What a token or blank stands for is left out.
 */
export function tokenize(text: string): string[] {
  const said = text.includes("{") ? text.replace(/\{[^{}]*\}/g, " ") : text;
  // Most texts are plain ASCII, for which much less will do.
  if (/^[\0-\x7f]*$/.test(said)) return said.toLowerCase().match(/[a-z]+|[0-9]+/g) ?? [];
  return plainOf(said).match(/\p{L}+|\p{N}+/gu) ?? [];
}

/** A text in small letters, without accents, with one space where there were several; lines end as they did. */
export function spacedOnce(text: string): string {
  return plainOf(text).replace(/[^\S\n]+/g, " ");
}

function plainOf(text: string): string {
  return text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
}

/** Whether a word may tell what a text is about. */
export function isTelling(word: string): boolean {
  return word.length > 1 && !COMMON.has(word);
}

/**
 * The runs of three and four letters of each word, its beginning and end marked by a space. Misspellings, other forms,
 * parts of compounds and related languages share most of them.
 */
export function gramsOf(words: string[]): string[] {
  const grams: string[] = [];
  for (const word of words) {
    const padded = ` ${word} `;
    for (let length = 3; length <= 4; length += 1)
      for (let at = 0; at + length <= padded.length; at += 1) grams.push(padded.slice(at, at + length));
  }
  return grams;
}

/** What an inquiry says: its subject where somebody chose one, and its text without what it quotes. A short text's subject counts twice. */
export function inquiryText({ subject, body }: { subject: string; body: string }): string {
  const chosen = subject.replace(REPLY_PREFIX, "");
  const written = splitQuoted(body).written;
  if (EMPTY_SUBJECT.test(chosen)) return written;
  return written.length < 200 ? `${chosen}\n${chosen}\n${written}` : `${chosen}\n${written}`;
}
