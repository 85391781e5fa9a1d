import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { contrastsOf } from "./contrast";

const of = (colours: Partial<Parameters<typeof contrastsOf>[0]>) =>
  Object.fromEntries(contrastsOf({ accent: "#0d5a45", ...colours }).map((one) => [one.part, one]));

describe("the contrast of stationery’s colours", () => {
  test("is that of WCAG: black on white is 21, a colour on itself 1", () => {
    expect(of({ textColour: "#000000", background: "#ffffff" }).words?.light).toBeCloseTo(21, 5);
    expect(of({ accent: "#808080", background: "#808080" }).rule?.light).toBeCloseTo(1, 5);
    // A known pair: #767676 on white is the lightest grey that words may have.
    expect(of({ textColour: "#767676" }).words?.light).toBeCloseTo(4.54, 2);
  });

  test("in the dark is that of inverted colours: what is fine on paper may be lost there", () => {
    expect(of({ textColour: "#000000", background: "#ffffff" }).words?.dark).toBeCloseTo(21, 3);
    const { light = 0, dark = 0, least = 0 } = of({ accent: "#7a7a7a", background: "#f2f2f2" }).rule ?? {};
    expect(light).toBeGreaterThan(least);
    expect(dark).not.toBeCloseTo(light, 1);
  });

  test("counts for header and footer, whose colour is always the same", () => {
    expect(of({}).around).toMatchObject({ least: 4.5 });
    expect(of({ background: "#56625c" }).around?.light).toBeCloseTo(1, 5);
  });

  test("lies between 1 and 21 for whatever colours", () => {
    const colour = fc
      .integer({ min: 0, max: 0xffffff })
      .map((value) => `#${value.toString(16).padStart(6, "0")}`);
    fc.assert(
      fc.property(colour, colour, colour, (accent, textColour, background) => {
        for (const { light, dark } of contrastsOf({ accent, textColour, background }))
          for (const ratio of [light, dark]) {
            expect(ratio).toBeGreaterThanOrEqual(0.999);
            expect(ratio).toBeLessThanOrEqual(21.001);
          }
      }),
    );
  });
});
