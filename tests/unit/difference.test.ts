import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit } from "culori";
import fc from "fast-check";
import { atLeastCiede2000, ciede2000 } from "#core/colour/difference.ts";
import type { Lab } from "#core/colour/lab.ts";
import { blue, encode, green, LINEAR, red, toHex } from "#core/colour/srgb.ts";
import { DEFICIENCIES, seen } from "#core/colour/vision.ts";
import { closest, seenByAll } from "#core/contrast/alike.ts";

/**
 * Table 1 of G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula" (2005): 34
 * pairs with their differences. Typed from memory; a slip would not agree to four decimals.
 */
const SHARMA: [...Lab, ...Lab, number][] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
  [50, 2.5, 0, 50, 3.2972, 0, 1],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
];

test.each(SHARMA)(
  "CIEDE2000 of (%d %d %d) and (%d %d %d) is %d",
  (l1, a1, b1, l2, a2, b2, expected) => {
    expect(ciede2000([l1, a1, b1], [l2, a2, b2])).toBeCloseTo(expected, 4);
    expect(ciede2000([l2, a2, b2], [l1, a1, b1])).toBeCloseTo(expected, 4);
  },
);

test("the cheap bound is never above CIEDE2000", () => {
  const lab = fc.tuple(
    fc.double({ min: 0, max: 100, noNaN: true }),
    fc.double({ min: -128, max: 128, noNaN: true }),
    fc.double({ min: -128, max: 128, noNaN: true }),
  );
  fc.assert(
    fc.property(lab, lab, (a, b) => {
      expect(atLeastCiede2000(a, b)).toBeLessThanOrEqual(ciede2000(a, b) + 1e-9);
    }),
  );
});

// Machado, Oliveira and Fernandes (2009), severity 1.0: culori carries the same tables; it applies
// them to whatever channels it is given, so it is given linear ones.
test("simulated deficiencies agree with another implementation of the paper's matrices", () => {
  const others = [filterDeficiencyProt(1), filterDeficiencyDeuter(1), filterDeficiencyTrit(1)];
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 0xffffff }),
      fc.integer({ min: 0, max: 2 }),
      (colour, i) => {
        const linear = (channel: number) => LINEAR[channel] as number;
        const other = others[i]?.({
          mode: "rgb",
          r: linear(red(colour)),
          g: linear(green(colour)),
          b: linear(blue(colour)),
        }) as { r: number; g: number; b: number };
        const byte = (x: number) => Math.round(encode(Math.min(1, Math.max(0, x))) * 255);
        const expected = (byte(other.r) << 16) | (byte(other.g) << 8) | byte(other.b);
        expect(toHex(seen(colour, DEFICIENCIES[i] ?? "protanopia"))).toBe(toHex(expected));
      },
    ),
  );
});

test("greys look the same to everybody; red and green do not keep their distance without a cone", () => {
  for (const deficiency of DEFICIENCIES) expect(seen(0x808080, deficiency)).toBe(0x808080);
  const { vision } = closest(seenByAll(0xc00000), seenByAll(0x4a7000));
  expect(["protanopia", "deuteranopia"]).toContain(vision);
});
