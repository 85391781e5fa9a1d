import { wordsOf } from "./words-of";

/** The words of library files and documents, file by file. */
export const t = wordsOf("library", {
  // formats/folder.ts
  noFrontMatter: "The file has no front matter between two lines of ---",
  noReplyToBeAVariantOf: "There is no reply “{{id}}” to be a variant of",
  twoVariantsInOneLanguage: "“{{id}}” has two variants in {{language}}",
  yaml: "YAML: {{problem}}",

  // formats/library.ts
  smallLettersDigitsAndHyphens: "Small letters, digits and hyphens",
  aLanguageTag: "A language tag, as in en or pt-BR",
  noLanguageKnown: "No language that is known how to write, as in en or pt-BR",
  writtenByANewerVersion: "This library was written by a newer version of the program; upgrade to read it",
  unknownKeys: "Unknown key {{keys}}",
  twoRepliesHaveTheId: "Two replies have the id “{{id}}”",

  // formats/markdown.ts
  htmlStaysAsText: "HTML is not read here; it stays as text",
  rowStandsAtTheStart: "“:row” stands at the start of a table row’s first cell",
  itemStandsAtTheStart: "“:item” stands at the start of a list item",
  aPassageNamesItsCondition: "A passage names its condition, as in {#car}",

  // formats/markdown-write.ts
  headingCellsBecomeOrdinary: "Heading cells outside a table’s first row become ordinary ones",
  spanningCellsBecomeSingle: "Cells that span columns or rows become single ones",
  paragraphsOfACellBecomeLines: "Several paragraphs in a cell become lines of one",
  aParagraphsPassageBecomesOfWords: "A passage of a paragraph in a cell becomes one of its words",
  blocksOfACellBecomeLines: "Headings, lists and quotations in a cell become lines of words",

  // document/schema.ts
  aDocumentStartsWithDoc: "A document starts with a node of type doc",
  problemAtPlace: "{{problem}} at {{place}}",
  notADocument: "Not a document",
  morePartsThan: "More than {{most, number}} parts",
  nestedDeeperThan: "Nested deeper than {{most, number}} levels",
  notANode: "Not a node",
  unknownNode: "Unknown kind of node “{{name}}”",
  unknownKey: "Unknown key “{{key}}”",
  aTextWithoutWords: "A text without words",
  contentIsNotAList: "Content is not a list",
  cannotHold: "“{{name}}” cannot hold {{what}}",
  cannotBeEmpty: "“{{name}}” cannot be empty",
  cannotHoldAnything: "“{{name}}” cannot hold anything",
  cannotCarryMarks: "“{{name}}” cannot carry marks",
  attributesAreNotAnObject: "Attributes are not an object",
  unknownAttribute: "Unknown attribute “{{key}}”",
  notAUsableValue: "Not a usable value",
  marksAreNotAList: "Marks are not a list",
  unknownMark: "Unknown mark",
});
