import type { PastInquiry, RankedText } from "#core/ranking/inquiry";
import { random } from "./measure";

export interface MadeLibrary {
  replies: RankedText[];
  past: PastInquiry[];
  asked: PastInquiry[];
}

/**
 * Replies, what they answered before, and what is asked now. Texts are made: syllables into words, common ones most, and
 * each reply with words of its own, in sentences of a dozen.
 */
export function madeLibrary(size: { replies: number; past: number; asked: number }): MadeLibrary {
  const draw = random(7);
  const syllables = "ba ce di fo gu ha je ki lo mu na pe ri so tu va we xi yo zu".split(" ");
  const word = () =>
    Array.from({ length: 2 + Math.floor(draw() * 3) }, () => syllables[Math.floor(draw() * 20)]).join("");
  const vocabulary = Array.from({ length: 20_000 }, word);
  // Common words are drawn most (Zipf).
  const any = () => vocabulary[Math.floor(vocabulary.length ** draw()) - 1] ?? "ba";
  const topics = Array.from({ length: size.replies }, () => Array.from({ length: 12 }, any));
  const text = (topic: string[], length: number) =>
    Array.from({ length }, (_, at) => {
      const drawn = draw() < 0.3 ? (topic[Math.floor(draw() * topic.length)] ?? "ba") : any();
      return at % 12 === 11 ? `${drawn}.` : drawn;
    }).join(" ");
  const replies = topics.map((topic, index): RankedText => ({
    id: `r${index}`,
    title: topic.slice(0, 4).join(" "),
    tags: topic.slice(4, 6),
    channels: ["email"],
    body: text(topic, 80),
  }));
  const inquiry = (id: string): PastInquiry => {
    const at = Math.floor(size.replies * draw() ** 2);
    return { id, channel: "email", subject: "", body: text(topics[at] ?? [], 40), reply: `r${at}` };
  };
  const past = Array.from({ length: size.past }, (_, index) => inquiry(`h${index}`));
  const asked = Array.from({ length: size.asked }, (_, index) => inquiry(`q${index}`));
  return { replies, past, asked };
}
