import type { Literal } from "mdast";
import type { Extension as FromMarkdownExtension } from "mdast-util-from-markdown";
import type { Code, Construct, Extension as SyntaxExtension, State } from "micromark-util-types";

/** A brace that was escaped: it is a brace, and begins no placeholder. */
interface LiteralBraceNode extends Literal {
  type: "literalBrace";
}

/** A token or blank in Markdown: its MessageFormat 2 placeholder, as typed. */
interface PlaceholderNode extends Literal {
  type: "placeholder";
}

declare module "mdast" {
  interface PhrasingContentMap {
    placeholder: PlaceholderNode;
    literalBrace: LiteralBraceNode;
  }
  interface RootContentMap {
    placeholder: PlaceholderNode;
    literalBrace: LiteralBraceNode;
  }
}

declare module "micromark-util-types" {
  interface TokenTypeMap {
    placeholder: "placeholder";
    literalBrace: "literalBrace";
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

/** `\{` and `\}`: what CommonMark reads as an escape, kept apart from other words. */
const literalBrace: Construct = {
  name: "literalBrace",
  tokenize(effects, ok, nok) {
    return (character) => {
      effects.enter("literalBrace");
      effects.consume(character);
      return (brace) => {
        if (brace !== code.open && brace !== code.close) return nok(brace);
        effects.consume(brace);
        effects.exit("literalBrace");
        return ok;
      };
    };
  },
};

function isEnd(character: Code): boolean {
  return character === null || character < 0;
}

/** Syntax for micromark. */
export const placeholderSyntax: SyntaxExtension = {
  text: { [code.open]: placeholder, [code.backslash]: literalBrace },
};

/** Nodes for mdast. */
export const placeholderFromMarkdown: FromMarkdownExtension = {
  enter: {
    literalBrace(token) {
      this.enter({ type: "literalBrace", value: this.sliceSerialize(token).slice(1) }, token);
    },
    placeholder(token) {
      const value = this.sliceSerialize(token);
      const inCell = /^[^|]*\\\|/.test(value);
      this.enter({ type: "placeholder", value: inCell ? value.replace(/\\([\\|])/g, "$1") : value }, token);
    },
  },
  exit: {
    literalBrace(token) {
      this.exit(token);
    },
    placeholder(token) {
      this.exit(token);
    },
  },
};
