import interfaceFont from "@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url";
import letterFont from "@fontsource-variable/literata/files/literata-latin-wght-normal.woff2?url";
import type { LinkDescriptor } from "react-router";

/** A font that a page's first look has in it: asked for with the page, so that no words move when it comes. */
const asked = (href: string): LinkDescriptor => ({
  rel: "preload",
  as: "font",
  type: "font/woff2",
  href,
  crossOrigin: "anonymous",
});

/** Of the interface. */
export const interfaceFontLink = asked(interfaceFont);
/** Of what customers read. */
export const letterFontLink = asked(letterFont);
