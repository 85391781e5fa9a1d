import { describe, expect, test } from "@jest/globals";
import { LARGE_FILE_BYTES, riskOf } from "./risky-file";

const file = (name: string, contentType = "", size = 1000) => riskOf({ name, contentType, size });

describe("a file is asked about", () => {
  test.each(["setup.exe", "Invoice.PDF.exe ", "run.BAT", "a.ps1", "tool.jar", "x.msi", "page.hta"])(
    "as a program by its name: %s",
    (name) => {
      expect(file(name)).toMatch(/^is a program/);
    },
  );

  test("as a program by its bytes' kind, whatever it is called", () => {
    expect(file("timetable.pdf", "application/x-msdownload")).toMatch(/^is a program/);
    expect(file("photo.jpg", "application/x-elf")).toMatch(/^is a program/);
  });

  test.each([
    ["fares.xlsm", ""],
    ["fares.xls", "application/vnd.ms-excel.sheet.macroEnabled.12"],
  ])("for its macros: %s", (name, type) => {
    expect(file(name, type)).toMatch(/^holds macros/);
  });

  test("for its size, from the first byte over", () => {
    expect(file("film.mp4", "video/mp4", LARGE_FILE_BYTES)).toBeNull();
    expect(file("film.mp4", "video/mp4", LARGE_FILE_BYTES + 1)).toMatch(/10 MB/);
  });
});

test.each(["timetable.pdf", "photo.jpeg", "exe", "notes.exe.txt", "fares.xlsx", "Überfahrt.docx", "bash"])(
  "nothing speaks against %s",
  (name) => {
    expect(file(name, "application/pdf")).toBeNull();
  },
);
