/**
 * Words by which letters open, close and speak of attachments, in the languages that the house writes.
 * Each list is matched without regard to case.
 */
export const greetings = [
  "hello",
  "hi",
  "hey",
  "dear",
  "good morning",
  "good afternoon",
  "good evening",
  "hallo",
  "guten tag",
  "guten morgen",
  "liebe",
  "lieber",
  "liebes",
  "sehr geehrte",
  "sehr geehrter",
  "moin",
  "bonjour",
  "bonsoir",
  "cher",
  "chère",
  "chers",
  "hola",
  "buenos días",
  "buenas tardes",
  "estimado",
  "estimada",
  "querido",
  "querida",
];

/** Forms of address that stand between greeting and name. */
export const titles = [
  "mr",
  "mrs",
  "ms",
  "mx",
  "miss",
  "dr",
  "prof",
  "professor",
  "sir",
  "madam",
  "herr",
  "herrn",
  "frau",
  "monsieur",
  "madame",
  "mademoiselle",
  "señor",
  "señora",
  "sr",
  "sra",
  "don",
  "doña",
];

/** What stands for a name when none is known. */
export const nobody = [
  "there",
  "all",
  "everyone",
  "both",
  "team",
  "again",
  "customer",
  "guest",
  "passenger",
  "friend",
  "friends",
  "colleagues",
  "zusammen",
  "damen",
  "und",
  "herren",
  "gast",
  "fahrgast",
  "tous",
  "toutes",
  "à",
  "a",
  "client",
  "todos",
  "cliente",
  "and",
  "from",
];

const signOffs = [
  "kind regards",
  "best regards",
  "warm regards",
  "with kind regards",
  "regards",
  "best wishes",
  "many thanks and best wishes",
  "yours sincerely",
  "yours faithfully",
  "yours truly",
  "sincerely",
  "all the best",
  "cheers",
  "safe travels",
  "with best wishes",
  "mit freundlichen grüßen",
  "freundliche grüße",
  "viele grüße",
  "beste grüße",
  "herzliche grüße",
  "gute fahrt",
  "cordialement",
  "bien cordialement",
  "bien à vous",
  "meilleures salutations",
  "bonne traversée",
  "un saludo",
  "saludos",
  "saludos cordiales",
  "atentamente",
  "un cordial saludo",
  "buen viaje",
];

/** A line that begins with a greeting. */
export const GREETING_LINE = new RegExp(`^\\s{0,20}(?:${greetings.join("|")})(?![\\p{L}])`, "iu");

/** A line that is a sign-off and nothing else. */
export const SIGN_OFF_LINE = new RegExp(
  `^[ \\t]{0,20}(?:${signOffs.join("|")})[ \\t]{0,20}[,.!]?[ \\t]{0,20}$`,
  "iu",
);

export const attachmentWords =
  /\b(?:attached|attachment|attachments|enclosed|enclosure)\b|(?<![\p{L}])(?:anbei|im anhang|angehängt|beigefügt|ci-joint|ci-jointe|ci-joints|pièce jointe|pièces jointes|adjunto|adjunta|adjuntos|adjuntamos)(?![\p{L}])/giu;

/** Marks that a writer leaves where something is still to come. */
export const unfinishedMarks = /\b(?:TODO|XXX|FIXME|TBD|TBC)\b|(?:…|\.\.\.)\s?fill\b|<{3,}|>{3,}|_{4,}/g;
