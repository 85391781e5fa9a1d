import type { Literal } from "mdast";
import type { Extension as FromMarkdownExtension } from "mdast-util-from-markdown";
import type { Code, Construct, Extension as SyntaxExtension, State } from "micromark-util-types";

/** A token or blank in Markdown: its MessageFormat 2 placeholder, as typed. */
interface PlaceholderNode extends Literal {
  type: "placeholder";
}

declare module "mdast" {
  interface PhrasingContentMap {
    placeholder: PlaceholderNode;
  }
  interface RootContentMap {
    placeholder: PlaceholderNode;
  }
}

declare module "micromark-util-types" {
  interface TokenTypeMap {
    placeholder: "placeholder";
  }
}

const code = { dollar: 36, backslash: 92, open: 123, bar: 124, close: 125 } as const;

/**
 * `{$…}` on one line, bars respected. Inside table cells bars are written `\|`, as GFM wants it.
 * The construct comes before directives, whose colon would otherwise be found in `:datetime`.
 */
const placeholder: Construct = {
  name: "placeholder",
  tokenize(effects, ok, nok) {
    return start;

    function start(character: Code): State | undefined {
      effects.enter("placeholder");
      effects.consume(character);
      return dollar;
    }
    function dollar(character: Code): State | undefined {
      if (character !== code.dollar) return nok(character);
      effects.consume(character);
      return inside;
    }
    function inside(character: Code): State | undefined {
      if (isEnd(character) || character === code.open) return nok(character);
      effects.consume(character);
      if (character === code.bar) return quoted;
      if (character === code.backslash) return cellBar;
      if (character !== code.close) return inside;
      effects.exit("placeholder");
      return ok;
    }
    function quoted(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      if (character === code.backslash) return escaped;
      return character === code.bar ? inside : quoted;
    }
    function escaped(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      return quoted;
    }
    function cellBar(character: Code): State | undefined {
      if (character !== code.bar) return nok(character);
      effects.consume(character);
      return cellQuoted;
    }
    function cellQuoted(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      return character === code.backslash ? cellEscape : cellQuoted;
    }
    // In a cell a bar is `\|` and a backslash `\\`: the states follow what they stand for.
    function cellEscape(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      if (character === code.bar) return inside;
      return character === code.backslash ? cellEscaped : cellQuoted;
    }
    function cellEscaped(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      return character === code.backslash ? cellEscapedPair : cellQuoted;
    }
    function cellEscapedPair(character: Code): State | undefined {
      if (isEnd(character)) return nok(character);
      effects.consume(character);
      return cellQuoted;
    }
  },
};

function isEnd(character: Code): boolean {
  return character === null || character < 0;
}

/** Syntax for micromark. */
export const placeholderSyntax: SyntaxExtension = { text: { [code.open]: placeholder } };

/** Nodes for mdast. */
export const placeholderFromMarkdown: FromMarkdownExtension = {
  enter: {
    placeholder(token) {
      const value = this.sliceSerialize(token);
      const inCell = /^[^|]*\\\|/.test(value);
      this.enter({ type: "placeholder", value: inCell ? value.replace(/\\([\\|])/g, "$1") : value }, token);
    },
  },
  exit: {
    placeholder(token) {
      this.exit(token);
    },
  },
};
