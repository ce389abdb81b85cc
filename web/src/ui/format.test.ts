import { afterEach, describe, expect, it } from "vitest";
import { bareUnit, force, length, liked, range, reach, seconds, short } from "./format";
import { fieldName } from "./notes";
import { setPrefs } from "./prefs";

describe("numbers", () => {
  it("have three figures and no trailing noughts", () => {
    expect([0, 12, 12.04, 0.3371, 1234, 5.5, -2.404].map(short)).toEqual([
      "0",
      "12",
      "12",
      "0.337",
      "1234",
      "5.5",
      "-2.4",
    ]);
    expect(short(Number.POSITIVE_INFINITY)).toBe("–");
  });

  it("take the unit of the trade", () => {
    expect(force(2.4, false)).toBe("2.4 kN");
    expect(force(0.02, false)).toBe("20 N");
    expect(force(0.0712, true)).toBe("16 lb");
    expect(length(0.35)).toBe("0.35 mm");
    expect(length(1200)).toBe("1.2 m");
    expect(seconds(12.4)).toBe("12 s");
    expect(seconds(125)).toBe("2 min 05 s");
  });

  it("show a range where only a range is known", () => {
    const f = { low: 11.3, likely: 13, high: 14.7, tag: "computed", source: "x" } as const;
    expect(range(f, (v) => force(v, false))).toBe("11–15 kN");
    expect(range({ ...f, low: 13, high: 13 }, (v) => force(v, false))).toBe("13 kN");
  });
});

describe("field names", () => {
  it("are said in plain words", () => {
    expect(fieldName("chain[2].line.diameter_mm")).toBe("line, diameter");
    expect(fieldName("chain[0].line.material")).toBe("other line, material");
    expect(fieldName("peak_kn")).toBe("peak");
    expect(fieldName("learner_id")).toBe("learner");
    expect(fieldName("loa")).toBe("length over all");
  });
});

describe("in the units preferred", () => {
  afterEach(() => setPrefs({ units: "kn", tackle: "lb" }));

  it("says rope in kilograms", () => {
    setPrefs({ units: "kgf" });
    expect([force(2.4, false), force(0.05, false), length(12), bareUnit("kN")]).toEqual([
      "245 kgf",
      "5.1 kgf",
      "12 mm",
      "kgf",
    ]);
  });

  it("says rope in inches, feet and pounds, fishing line in kilograms", () => {
    setPrefs({ units: "in", tackle: "kg" });
    expect([force(2.4, false), length(12), length(8000), reach(0.61), force(0.089, true)]).toEqual([
      "540 lbf",
      "0.47 in",
      "26 ft",
      "24 in",
      "9.1 kg",
    ]);
    expect([bareUnit("mm"), bareUnit("m"), bareUnit("kN"), bareUnit("lb")]).toEqual([
      "in",
      "ft",
      "lb",
      "kgf",
    ]);
    expect([liked("8 mm"), liked("2.4 kN"), liked("20 lb"), liked("0")]).toEqual([
      "0.31 in",
      "540 lbf",
      "9.1 kg",
      "0",
    ]);
  });
});
