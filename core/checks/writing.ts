import type { PassageRef } from "../document/definition";
import { safeHref } from "../document/links";
import { toPlainText } from "../document/text";
import {
  textChannels,
  type BlankNode,
  type TextChannel,
  type TextNode,
  type TokenNode,
} from "../document/types";
import { passagesOf, sizeOf, walk } from "../document/walk";
import { formatFunctions } from "../tokens/format";
import { isGuaranteed, knownWhere, whyUncertain } from "./guarantee";
import { ownEntry } from "../tokens/own";
import { readText, type TextPiece } from "../tokens/text-form";
import { outOfDate } from "../language/dates";
import { languageName, sameLanguage } from "../language/tag";
import { withExamples } from "./examples";
import { factWords } from "./facts";
import { GREETING_LINE, SIGN_OFF_LINE } from "./phrases";
import { definitions } from "./definitions";
import type {
  Used,
  WriterCode,
  WriterFinding,
  WriterPlace,
  WritingChecksInput,
  WrittenReply,
  WrittenVariant,
} from "./written";
import { t } from "../words/checks";

/** Looks through a reply. The reply's own findings come first, then each variant's in the order of its words. */
export function checkReply(reply: WrittenReply, input: WritingChecksInput): WriterFinding[] {
  const used: Used = { blanks: new Set(), uses: [] };
  const variants = reply.variants.flatMap((variant) => [
    ...new VariantChecks(reply, variant, input, used).all(),
    ...ownTexts(variant).flatMap((own) => new VariantChecks(reply, own, input, used).all()),
  ]);
  return [...definitions(reply, input, used), ...variants];
}

/** What channels say of their own, each as a variant by itself. */
function ownTexts({ language, texts }: WrittenVariant): Variant[] {
  return textChannels.flatMap((channel) => {
    const document = texts?.[channel];
    return document ? [{ language, subject: null, document, channel }] : [];
  });
}

interface Variant extends WrittenVariant {
  /** The channel whose own text it is; left out for the common one. */
  channel?: TextChannel;
}

class VariantChecks {
  readonly #findings: WriterFinding[] = [];

  constructor(
    private readonly reply: WrittenReply,
    private readonly variant: Variant,
    private readonly input: WritingChecksInput,
    private readonly used: Used,
  ) {}

  all(): WriterFinding[] {
    this.#subject();
    this.#body();
    this.#greetingAndSignOff();
    this.#segments();
    this.#untranslated();
    if (toPlainText(this.variant.document.content).trim() === "")
      this.#add("wrong", "nothing-written", t("nothingIsWrittenYet"), null);
    return this.#findings;
  }

  /** A translation begins with the original’s words: until they are others, nothing is translated. */
  #untranslated(): void {
    const [original] = this.reply.variants;
    if (
      !original ||
      this.variant.channel ||
      original === this.variant ||
      sameLanguage(original.language, this.variant.language)
    )
      return;
    const words = toPlainText(this.variant.document.content).trim();
    if (words !== "" && words === toPlainText(original.document.content).trim())
      this.#add(
        "look",
        "untranslated",
        t("notTranslatedYet", { language: languageName(original.language) }),
        null,
      );
  }

  #add(severity: WriterFinding["severity"], code: WriterCode, message: string, at: WriterPlace | null): void {
    this.#findings.push({
      severity,
      code,
      message,
      language: this.variant.language,
      channel: this.variant.channel ?? null,
      at,
    });
  }

  #subject(): void {
    const { subject } = this.variant;
    if (subject === null) return;
    const { pieces, problems } = readText(subject);
    for (const { message, from, to } of problems)
      this.#add("wrong", "text-unreadable", t("inSubject", { problem: message }), {
        in: "subject",
        from,
        to,
      });
    const at: WriterPlace = { in: "subject", from: 0, to: subject.length };
    for (const piece of pieces) if (piece.type !== "text") this.#placeholder(piece, [], at);
  }

  #body(): void {
    const { document } = this.variant;
    const open: { refs: PassageRef[]; end: number }[] = [];
    walk(document, (node, position) => {
      while (open.length > 0 && (open.at(-1)?.end ?? 0) <= position) open.pop();
      const own = passagesOf(node);
      for (const { id, otherwise } of own) {
        this.used.uses.push({ id, otherwise });
        if (!Object.hasOwn(this.reply.passages, id))
          this.#add("wrong", "passage-unknown", t("conditionIsGone"), range(position, sizeOf(node)));
      }
      const refs = [...open.flatMap((one) => one.refs), ...own];
      if ("content" in node) open.push({ refs: own, end: position + sizeOf(node) });
      const at = range(position, sizeOf(node));
      switch (node.type) {
        case "token":
        case "blank":
          this.#placeholder(node, refs, at);
          break;
        case "image":
          if (node.attrs.alt.trim() === "")
            this.#add("look", "picture-without-text", t("sayWhatThePictureShows"), at);
          else this.#text(node.attrs.alt, "inAlternativeText", refs, at);
          break;
        case "text":
          this.#words(node, position);
          break;
        default:
      }
      if ("marks" in node) this.#link(node, refs, at);
    });
  }

  #link(
    node: TextNode | TokenNode | BlankNode | { marks?: TextNode["marks"] },
    refs: PassageRef[],
    at: WriterPlace,
  ): void {
    const link = node.marks?.find((mark) => mark.type === "link");
    if (!link) return;
    const { href } = link.attrs;
    const filled = href.replace(/\{[^{}]*\}/g, "x");
    if (safeHref(filled) === null || /^https?:\/\/\/?$/.test(filled))
      this.#add("wrong", "link-without-address", t("notAnAddress", { href }), at);
    this.#text(href, "inLinkAddress", refs, at);
  }

  #text(
    text: string,
    where: "inAlternativeText" | "inLinkAddress",
    refs: PassageRef[],
    at: WriterPlace,
  ): void {
    const { pieces, problems } = readText(text);
    for (const problem of problems)
      this.#add("wrong", "text-unreadable", t(where, { problem: problem.message }), at);
    for (const piece of pieces) if (piece.type !== "text") this.#placeholder(piece, refs, at);
  }

  #placeholder(node: Exclude<TextPiece, { type: "text" }>, refs: PassageRef[], at: WriterPlace): void {
    const { name, fn, options } = node.attrs;
    if (fn !== null && !(formatFunctions as readonly string[]).includes(fn))
      this.#add("wrong", "function-unknown", t("thereIsNoFormat", { format: fn }), at);
    if (node.type === "blank") {
      this.used.blanks.add(name);
      if (!Object.hasOwn(this.reply.blanks, name))
        this.#add("wrong", "blank-unknown", t("thereIsNoBlankName", { name }), at);
      return;
    }
    const token = this.input.tokens.get(name);
    if (!token) {
      this.#add("wrong", "token-unknown", t("thereIsNoTokenName", { name }), at);
      return;
    }
    if (options.fallback?.trim() || isGuaranteed(token, this.reply.about)) return;
    const known = refs.some((ref) => {
      const passage = ownEntry(this.reply.passages, ref.id);
      return passage && knownWhere(passage.when, !ref.otherwise).has(name);
    });
    if (!known)
      this.#add(
        "look",
        "token-uncertain",
        t("mayBeMissing", { label: token.label, why: whyUncertain(name, this.reply.about) }),
        at,
      );
  }

  #words({ text }: TextNode, position: number): void {
    for (const match of text.matchAll(/\{\s*\$[^{}]*\}?/g))
      this.#add(
        "wrong",
        "text-unreadable",
        t("notAToken", { words: match[0] }),
        range(position + match.index, match[0].length),
      );
    for (const fact of this.input.facts) {
      for (const words of factWords(fact, this.variant.language)) {
        const at = text.toLowerCase().indexOf(words.toLowerCase());
        if (at < 0 || !standsAlone(text, at, words.length)) continue;
        this.#add(
          "look",
          "fact-typed",
          t("isAHouseFact", { words, key: fact.key }),
          range(position + at, words.length),
        );
        break;
      }
    }
    if (this.input.now === null) return;
    for (const { index, words } of outOfDate(text, this.variant.language, this.input.now))
      this.#add("look", "date-passed", t("hasPassed", { words }), range(position + index, words.length));
  }

  #greetingAndSignOff(): void {
    if (this.reply.part !== "answer") return;
    const paragraphs: { text: string; from: number; to: number }[] = [];
    walk(this.variant.document, (node, position) => {
      if (node.type === "paragraph")
        paragraphs.push({ text: toPlainText([node]), from: position, to: position + sizeOf(node) });
    });
    const [first] = paragraphs;
    if (first && GREETING_LINE.test(first.text) && first.text.length <= 80)
      this.#add("look", "greeting-inside", t("noGreetingNeeded"), {
        in: "body",
        from: first.from,
        to: first.to,
      });
    for (const { text, from, to } of paragraphs)
      if (SIGN_OFF_LINE.test(text))
        this.#add("look", "sign-off-inside", t("noSignOffNeeded"), {
          in: "body",
          from,
          to,
        });
  }

  #segments(): void {
    const { segments } = this.input;
    const { channel, texts } = this.variant;
    // What short messages have of their own is counted, and nothing in its place.
    if (!segments || !this.reply.channels.includes("sms") || channel === "chat" || texts?.sms) return;
    const text = toPlainText(
      withExamples(this.variant.document, this.input.tokens, this.reply.blanks).content,
    );
    const count = segments(text);
    if (count > 1) this.#add("look", "sms-segments", t("smsMessages", { count }), null);
  }
}

function range(position: number, size: number): WriterPlace {
  return { in: "body", from: position, to: position + size };
}

function standsAlone(text: string, at: number, length: number): boolean {
  const letter = /[\p{L}\p{N}]/u;
  return !letter.test(text.slice(at - 1, at)) && !letter.test(text.slice(at + length, at + length + 1));
}
