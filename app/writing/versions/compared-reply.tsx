import { compareDocuments, compareTexts, isUnchanged } from "#core/document/compare";
import { channelName } from "#core/words/named";
import { textChannels } from "#core/document/types";
import { emptyDocument } from "#core/document/schema";
import type { PassageRef } from "#core/document/definition";
import { inWords } from "#core/conditions/in-words";
import { labelOf } from "#core/compose/passages";
import { blankLabel, type Blank } from "#core/tokens/blanks";
import type { Token } from "#core/tokens/catalogue";
import type { Content } from "#server/replies/content";
import { ComparedLines, ComparedWords } from "../../ui/compared";
import { languageName } from "#core/language/tag";
import { ChipNames, inLabels } from "../editor/chip-names";
import { LetterBlocks } from "../../ui/letter-blocks";
import { t } from "../../words/writing";

interface Props {
  /** Null to show the newer alone. */
  before: Content | null;
  after: Content;
  tokens: ReadonlyMap<string, Token>;
}

/** All that two versions say, compared: titles, every language, and in words the blanks, conditions and files. */
export function ComparedReply({ before, after, tokens }: Props) {
  const [newTexts, oldTexts] = [textsOf(after), before === null ? null : textsOf(before)];
  const names = [...new Set([...newTexts, ...(oldTexts ?? [])].map(({ name }) => name))];
  const changes = before ? definitionChanges(before, after, tokens) : [];
  const when = (refs: PassageRef[]) =>
    refs
      .map((ref) => {
        const passage = after.passages[ref.id] ?? before?.passages[ref.id];
        const words = passage ? conditionWords(after, passage.when, tokens) : ref.id;
        return ref.otherwise ? t("otherwiseThanWhen", { words }) : t("whenWords", { words });
      })
      .join(`, ${t("andWord")} `);
  const known = { tokens, blanks: { ...before?.blanks, ...after.blanks } };
  return (
    <ChipNames {...known}>
      <div className="mt-4 flex flex-col gap-6">
        {before && before.title !== after.title && (
          <p className="text-lg">
            <span className="mr-3 text-sm text-soft">{t("title")}</span>
            <ComparedWords pieces={compareTexts(before.title, after.title)} />
          </p>
        )}
        {names.map((name) => {
          const newer = newTexts.find((one) => one.name === name);
          const older = oldTexts?.find((one) => one.name === name);
          const lines = compareDocuments(
            older?.document ?? emptyDocument(),
            newer?.document ?? emptyDocument(),
          );
          const subject = compareTexts(
            inLabels(older?.subject ?? "", known),
            inLabels(newer?.subject ?? "", known),
          );
          const same =
            before !== null && isUnchanged(lines) && subject.every((piece) => piece.kind === "same");
          return (
            <section key={name} aria-label={name}>
              <h2 className="mb-2 border-b border-line pb-1 font-bold">
                {name}
                {before && !older && <span className="font-normal text-soft"> {t("isNew")}</span>}
                {before && !newer && <span className="font-normal text-stop"> {t("isGone")}</span>}
                {same && <span className="font-normal text-soft"> {t("isTheSame")}</span>}
              </h2>
              {subject.length > 0 && (
                <p className="mb-2 font-serif">
                  <span className="mr-3 font-sans text-sm text-soft">{t("subject")}</span>
                  {before ? <ComparedWords pieces={subject} /> : inLabels(newer?.subject ?? "", known)}
                </p>
              )}
              {before === null ? (
                <div className="letter max-w-2xl">
                  <LetterBlocks blocks={newer?.document.content ?? []} />
                </div>
              ) : (
                !same && <ComparedLines lines={lines} when={when} />
              )}
            </section>
          );
        })}
        {changes.length > 0 && (
          <section aria-label={t("blanksConditionsAndFiles")}>
            <h2 className="mb-2 border-b border-line pb-1 font-bold">{t("blanksConditionsAndFiles")}</h2>
            <ul className="flex flex-col gap-1">
              {changes.map((change) => (
                <li key={change}>{change}</li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </ChipNames>
  );
}

/** Every text of a reply, with what it is called. */
function textsOf({ variants }: Content) {
  return variants.flatMap(({ language, subject, document, texts }) => [
    { name: languageName(language), subject, document },
    ...textChannels.flatMap((channel) => {
      const own = texts?.[channel];
      const words = { language: languageName(language), channel: channelName(channel) };
      return own ? [{ name: t("languageForChannel", words), subject: null, document: own }] : [];
    }),
  ]);
}

function conditionWords(
  content: Content,
  when: Parameters<typeof inWords>[0],
  tokens: ReadonlyMap<string, Token>,
): string {
  return inWords(when, (name) => labelOf(name, { blanks: content.blanks }, tokens));
}

/** What changed beside the words, a sentence each. */
function definitionChanges(before: Content, after: Content, tokens: ReadonlyMap<string, Token>): string[] {
  const sentences: string[] = [];
  for (const name of new Set([...Object.keys(before.blanks), ...Object.keys(after.blanks)])) {
    const [old, now] = [before.blanks[name], after.blanks[name]];
    if (!old)
      sentences.push(t("theBlankNameIsNewNow", { name: blankLabel(name, now), now: blankWords(now) }));
    else if (!now) sentences.push(t("theBlankNameIsGone", { name: blankLabel(name, old) }));
    else if (JSON.stringify(old) !== JSON.stringify(now))
      sentences.push(
        t("theBlankNameWasOldAnd", {
          name: blankLabel(name, now),
          old: blankWords(old),
          now: blankWords(now),
        }),
      );
  }
  for (const id of new Set([...Object.keys(before.passages), ...Object.keys(after.passages)])) {
    const [old, now] = [before.passages[id], after.passages[id]];
    const said = (content: Content, passage: typeof old) =>
      passage ? conditionWords(content, passage.when, tokens) : "";
    if (!old) sentences.push(t("theConditionAfterIsNew", { after: said(after, now) }));
    else if (!now) sentences.push(t("theConditionBeforeIsGone", { before: said(before, old) }));
    else if (said(before, old) !== said(after, now))
      sentences.push(
        t("theConditionBeforeIsNowAfter", { before: said(before, old), after: said(after, now) }),
      );
  }
  const names = (content: Content) => content.files.map((file) => file.name);
  for (const file of after.files)
    if (!before.files.some((one) => one.id === file.id))
      sentences.push(t("fileIsAttached", { file: file.name }));
  for (const file of before.files)
    if (!after.files.some((one) => one.id === file.id))
      sentences.push(t("fileIsNoLongerAttached", { file: file.name }));
  if (
    names(before).join() !== names(after).join() &&
    before.files.length === after.files.length &&
    before.files.every((file) => after.files.some((one) => one.id === file.id))
  )
    sentences.push(t("theFilesGoInAnotherOrder"));
  if (before.useTemplateSubject !== after.useTemplateSubject)
    sentences.push(
      after.useTemplateSubject ? t("itsSubjectIsUsedInPlace") : t("theThreadsSubjectIsUsedAgain"),
    );
  return sentences;
}

function blankWords(blank: Blank | undefined): string {
  if (!blank) return "";
  const facts = [
    blank.kind.replace("_", " "),
    blank.kind === "choice" ? t("ofOptions", { options: blank.options.join(", ") }) : null,
    blank.kind === "choice" && blank.many ? t("severalAtOnce") : null,
    blank.required ? null : t("mayStayEmpty"),
    blank.printed ? null : t("notPrinted"),
    blank.default ? t("beginsWithDefault", { default: blank.default }) : null,
    blank.hint ? t("hintHint", { hint: blank.hint }) : null,
    "min" in blank && blank.min !== undefined ? t("atLeastMin", { min: blank.min }) : null,
    "max" in blank && blank.max !== undefined ? t("atMostMax", { max: blank.max }) : null,
  ];
  return facts.filter(Boolean).join(", ");
}
