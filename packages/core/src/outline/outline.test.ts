import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import * as opentype from 'opentype.js';
import { svgPathProperties } from 'svg-path-properties';
import { arcLengths, totalLength } from '../curves/arclength';
import { emptyForm } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { areaAndVolume } from '../geometry/mesh';
import { topologyCounts } from '../geometry/topology/topology';
import { pathsFrom } from '../geometry/paths';
import { Problem } from '../problem';
import { fitProfile, regionProfile } from '../surfaces/sweep/sweepProfile';
import type { Cap } from '../surfaces/sweep/rings';
import { sweepProfile } from '../surfaces/sweep/sweepTubes';
import { Pen } from './bezier';
import { readFont, textContours } from './font';
import { doubleArea, inside, regionsOf } from './region';
import { svgContours } from './svg';

const FONT = join(__dirname, '../../../../examples/assets/bricolage-grotesque-800.woff');
const fontBytes = new Uint8Array(readFileSync(FONT));
const svg = (inner: string, attributes = ''): Uint8Array =>
  new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`);

const lengthOf = ({ points, closed }: { points: number[]; closed: boolean }): number => {
  const flat = Float64Array.from({ length: (points.length / 2) * 3 }, (_, i) =>
    i % 3 === 2 ? 0 : points[2 * Math.floor(i / 3) + (i % 3)],
  );
  return totalLength(arcLengths(flat, 0, flat.length / 3, closed));
};

describe('flattening', () => {
  test('chords stay within the tolerance of the curve', () => {
    const pen = new Pen(0.01);
    pen.move(0, 0);
    pen.cubic(0, 4, 5, 4, 5, 0);
    pen.end(false);
    const { points } = pen.contours[0];
    for (let t = 0; t <= 1; t += 0.001) {
      const s = 1 - t;
      const [x, y] = [15 * s * t * t + 5 * t ** 3, 12 * s * s * t + 12 * s * t * t];
      let nearest = Infinity;
      for (let i = 2; i < points.length; i += 2) {
        const [ax, ay, bx, by] = [points[i - 2], points[i - 1], points[i], points[i + 1]];
        const k = Math.min(
          1,
          Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)),
        );
        nearest = Math.min(nearest, Math.hypot(ax + k * (bx - ax) - x, ay + k * (by - ay) - y));
      }
      expect(nearest).toBeLessThanOrEqual(0.0101);
    }
  });
});

describe('regions', () => {
  const square = (x: number, y: number, half: number) => [
    x - half,
    y - half,
    x + half,
    y - half,
    x + half,
    y + half,
    x - half,
    y + half,
  ];

  test('a hole belongs to the contour just around it; an island in it is a region of its own', () => {
    const regions = regionsOf([square(0, 0, 1), square(0, 0, 5), square(0, 0, 3), square(20, 0, 2)]);
    expect(regions).toHaveLength(3);
    const [island, ring, other] = regions;
    expect([island.holes.length, ring.holes.length, other.holes.length]).toEqual([0, 1, 0]);
    expect(doubleArea(ring.outer)).toBe(200);
    expect(doubleArea(ring.holes[0])).toBe(-72);
    expect(inside(ring.holes[0], 0.5, 0.5)).toBe(true);
    expect(inside(ring.holes[0], 4, 0)).toBe(false);
  });

  test('thousands of contours are sorted, each hole into its own', () => {
    const contours = Array.from({ length: 4000 }, (_, k) => square(10 * Math.floor(k / 2), 0, k % 2 ? 2 : 4));
    const regions = regionsOf(contours);
    expect(regions).toHaveLength(2000);
    for (const { outer, holes } of regions) {
      expect(holes).toHaveLength(1);
      expect(inside(outer, holes[0][0], holes[0][1])).toBe(true);
    }
  });

  test('whichever way contours ran, outer ones end up anticlockwise, holes clockwise', () => {
    const back = (points: number[]) =>
      Array.from({ length: points.length }, (_, i) => points[points.length - 2 - 2 * Math.floor(i / 2) + (i % 2)]);
    const [region] = regionsOf([back(square(0, 0, 5)), square(0, 0, 3)]);
    expect(doubleArea(region.outer)).toBeGreaterThan(0);
    expect(doubleArea(region.holes[0])).toBeLessThan(0);
  });
});

describe('SVG files', () => {
  // The other reader: svg-path-properties, which measures curves by Gauss-Legendre quadrature.
  test.each([
    ['lines', 'M10 10 L90 10 l0 50 h-30 v20 H10 z'],
    ['cubics, smooth ones too', 'M10 80 C40 10, 65 10, 95 80 S150 150, 180 80'],
    ['quadratics, smooth ones too', 'M10 80 Q52.5 10 95 80 T180 80'],
    ['arcs', 'M10 315 L110 215 A30 50 0 0 1 162.55 162.45 L172.55 152.45 A30 50 -45 0 1 215.1 109.9'],
    ['relative everything', 'm5 5 c0 30 40 30 40 0 s40 -30 40 0 q10 20 20 0 t20 0 a12 12 0 1 0 24 0'],
  ])('%s have the length that svg-path-properties measures', async (_, d) => {
    const contours = await svgContours(svg(`<path d="${d}"/>`), 1e-6);
    const length = contours.reduce((sum, contour) => sum + lengthOf(contour), 0);
    expect(length / new svgPathProperties(d).getTotalLength()).toBeCloseTo(1, 3);
  });

  test.each([
    ['lines', 'l', ' 3 1 -1,2'],
    ['cubics', 'c', ' 1 2 3-4 5 6'],
    ['quadratics that go on', 't', ' 1 1-2 3'],
    ['arcs with flags that touch', 'a', ' 5 5 30 011 1'],
    ['heights', 'V', ' 1.5.5'],
  ])('a command with thousands of sets of numbers is read as many commands are: %s', async (_, letter, numbers) => {
    const text = (count: number, between: string): string =>
      `M0 0 q1 1 2 0${letter}${Array(count).fill(numbers).join(between)}`;
    const once = await svgContours(svg(`<path d="${text(900, '')}"/>`), 0.01);
    const apart = await svgContours(svg(`<path d="${text(900, letter)}"/>`), 0.01);
    expect(once[0].points).toHaveLength(apart[0].points.length);
    expect(Math.max(...once[0].points.map((x, i) => Math.abs(x - apart[0].points[i])))).toBeLessThan(1e-6);
  });

  test('a fault in a long run of numbers is told, not left out', async () => {
    const run = Array(2000).fill('1 2').join(' ');
    for (const fault of ['5', 'x 3', '4 5 &'])
      await expect(svgContours(svg(`<path d="M0 0L${run} ${fault.replace('&', '#')}"/>`))).rejects.toThrow(Problem);
  });

  test('shapes have the perimeters of geometry, and know that they close', async () => {
    const contours = await svgContours(
      svg(`<rect x="1" y="2" width="30" height="20"/><circle cx="9" cy="9" r="7"/>
        <rect width="30" height="20" rx="5"/><line x1="0" y1="0" x2="3" y2="4"/><polygon points="0,0 4,0 4,3"/>
        <polyline points="0 0 5 0 5 5"/>`),
      1e-6,
    );
    expect(contours.map(({ closed }) => closed)).toEqual([true, true, true, false, true, false]);
    const lengths = contours.map(lengthOf);
    expect(lengths[0]).toBeCloseTo(100, 6);
    expect(lengths[1] / (14 * Math.PI)).toBeCloseTo(1, 3);
    expect(lengths[2] / (100 - 40 + 10 * Math.PI)).toBeCloseTo(1, 3);
    expect(lengths.slice(3)).toEqual([5, 12, 10]);
  });

  test('transforms of groups work from the inside out; up is up', async () => {
    const [contour] = await svgContours(
      svg(
        '<g transform="translate(100 0)"><g transform="scale(2)"><line x1="1" y1="1" x2="3" y2="1" transform="rotate(90)"/></g></g>',
      ),
    );
    // (1,1) turned by 90° is (−1,1), doubled (−2,2), moved (98,2); SVG's y points down.
    expect(contour.points.map((x) => Math.round(x * 1e6) / 1e6)).toEqual([98, -2, 98, -6]);
  });

  test('what is not drawn is left out: definitions, what is hidden, scripts, references', async () => {
    const contours = await svgContours(
      svg(`<defs><path d="M0 0H9"/></defs><script>globalThis.hacked = true</script>
        <g display="none"><path d="M0 0H8"/></g><path style="fill:red;display:none" d="M0 0H7"/>
        <image href="http://example.invalid/a.png"/><use href="http://example.invalid/b.svg#x"/>
        <foreignObject><path d="M0 0H6"/></foreignObject><path onload="globalThis.hacked = true" d="M0 0H5"/>`),
    );
    expect(contours.map(lengthOf)).toEqual([5]);
    expect((globalThis as { hacked?: boolean }).hacked).toBeUndefined();
  });

  test.each([
    ['nothing', ''],
    ['no XML', 'a drawing of a fish'],
    ['an unclosed element', '<svg><path d="M0 0H5">'],
    ['other XML', '<html><body/></html>'],
    ['a drawing without paths', '<svg><text>hello</text></svg>'],
    ['a path of nonsense', '<svg><path d="M0 0 banana"/></svg>'],
    ['entities', '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg><path d="M0 0H5"/>&b;</svg>'],
    ['endless nesting', `<svg>${'<g>'.repeat(5000)}<path d="M0 0H5"/>${'</g>'.repeat(5000)}</svg>`],
    [
      'a number that sums would make infinite',
      '<svg><g transform="translate(1e308 1e308)"><circle r="1e307" cx="1e308"/></g></svg>',
    ],
    ['an infinite number', '<svg><path d="M0 0 L1e999 5"/></svg>'],
  ])('%s is refused with a reason', async (_, text) => {
    await expect(svgContours(new TextEncoder().encode(text))).rejects.toThrow(Problem);
  });

  test('what is no well-formed XML is told in our words, with its line', async () => {
    const text = '<svg>\n<path d="M0 0H5"/>\n</g></svg>';
    await expect(svgContours(new TextEncoder().encode(text))).rejects.toThrow(
      /^This is no sound SVG file: its XML is damaged in line 3\.$/,
    );
  });

  test('any damage is refused or drawn with finite numbers', async () => {
    const sound = svg(
      '<g transform="rotate(10)"><path d="M10 80 C40 10, 65 10, 95 80 A30 50 0 0 1 162 162 z"/><rect width="9" height="4" rx="1"/></g>',
    );
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(sound.length - 1), fc.nat(255)), { maxLength: 6 }), async (marks) => {
        const bytes = sound.slice();
        for (const [at, value] of marks) bytes[at] = value;
        try {
          for (const { points } of await svgContours(bytes)) expect(points.every(Number.isFinite)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(Problem);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('fonts', () => {
  test("contours lie within the glyph's own box, and letters stand apart by the font's own widths", async () => {
    const font = await readFont(fontBytes);
    const em = font.unitsPerEm;
    for (const letter of 'RBog&8') {
      const glyph = font.charToGlyph(letter);
      const box = glyph.getMetrics();
      const flat = textContours(font, letter, 0).flatMap(({ points }) => points);
      const [xs, ys] = [0, 1].map((axis) => flat.filter((_, i) => i % 2 === axis));
      for (const [ours, theirs] of [
        [Math.min(...xs), box.xMin],
        [Math.max(...xs), box.xMax],
        [Math.min(...ys), box.yMin],
        [Math.max(...ys), box.yMax],
      ])
        expect(Math.abs(ours - theirs / em)).toBeLessThan(0.003);
    }
    const left = (text: string) =>
      Math.min(
        ...textContours(font, text, 0)
          .at(-1)!
          .points.filter((_, i) => i % 2 === 0),
      );
    const kerning = font.getKerningValue(font.charToGlyph('H'), font.charToGlyph('I'));
    expect(left('HI') - left('I')).toBeCloseTo((font.charToGlyph('H').advanceWidth! + kerning) / em, 6);
  });

  test('holes are found: one in R, two in B and 8, none in L', async () => {
    const font = await readFont(fontBytes);
    const holes = (letter: string) =>
      regionsOf(textContours(font, letter, 0).map(({ points }) => points)).reduce(
        (sum, region) => sum + region.holes.length,
        0,
      );
    expect([...'RB8Lo'].map(holes)).toEqual([1, 2, 2, 0, 1]);
  });

  test('what cannot be set says so', async () => {
    const font = await readFont(fontBytes);
    expect(() => textContours(font, 'ひ', 0)).toThrow(/no shape for “ひ”/);
    expect(() => textContours(font, '  ', 0)).toThrow(/no letter/);
  });

  test('a TrueType file written by another hand is read as well', async () => {
    const library = (opentype as unknown as { default?: typeof opentype }).default ?? opentype;
    const path = new library.Path();
    path.moveTo(100, 0);
    path.lineTo(600, 0);
    path.lineTo(600, 700);
    path.lineTo(100, 700);
    path.close();
    const glyphs = [
      new library.Glyph({ name: '.notdef', advanceWidth: 650, path: new library.Path() }),
      new library.Glyph({ name: 'A', unicode: 65, advanceWidth: 700, path }),
    ];
    const made = new library.Font({
      familyName: 'Reef',
      styleName: 'Block',
      unitsPerEm: 1000,
      ascender: 800,
      descender: -200,
      glyphs,
    });
    const [{ points }] = textContours(await readFont(new Uint8Array(made.toArrayBuffer())), 'A', 0);
    expect(doubleArea(points)).toBeCloseTo(2 * 0.5 * 0.7, 6);
  });

  test('other and damaged files are refused, never worse', async () => {
    for (const bytes of [new Uint8Array(0), new TextEncoder().encode('wOFF but no more'), fontBytes.slice(0, 900)])
      await expect(readFont(bytes)).rejects.toThrow(Problem);
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(2000), fc.nat(255)), { minLength: 1, maxLength: 8 }), async (marks) => {
        const bytes = fontBytes.slice();
        for (const [at, value] of marks) bytes[at] = value;
        try {
          const contours = textContours(await readFont(bytes), 'Reef', 0);
          for (const { points } of contours) expect(points.every(Number.isFinite)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(Problem);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('swept letters', () => {
  const straight = pathsFrom([{ positions: [0, 0, 0, 0, 1, 0, 0, 2, 0] }]);
  const shape = (cap: Cap) => ({
    radius: 0.5,
    along: () => 1,
    follows: 'whole' as const,
    swell: 0,
    sides: 16,
    start: cap,
    end: cap,
  });

  test.each(['flat', 'round', 'pointed'] as const)(
    'every letter and figure is watertight with %s ends, no face inside out',
    async (cap) => {
      const font = await readFont(fontBytes);
      for (const letter of 'ABCDGOPQRSabdegqs0468&%@') {
        const regions = fitProfile(regionsOf(textContours(font, letter, 0).map(({ points }) => points)));
        const mesh = await sweepProfile(straight, regionProfile(regions, true), shape(cap));
        expect([letter, topologyCounts(mesh)]).toEqual([
          letter,
          expect.objectContaining({ openEdges: 0, flippedEdges: 0 }),
        ]);
        expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
      }
    },
  );

  test('a straight sweep encloses its area times its length, holes left out', async () => {
    const font = await readFont(fontBytes);
    const regions = fitProfile(regionsOf(textContours(font, 'B', 0).map(({ points }) => points)));
    const area = regions.reduce(
      (sum, { outer, holes }) => sum + [outer, ...holes].reduce((s, c) => s + doubleArea(c) / 2, 0),
      0,
    );
    const mesh = await sweepProfile(straight, regionProfile(regions, true), shape('flat'));
    expect(areaAndVolume(mesh).volume).toBeCloseTo(area * 0.25 * 2, 5);
    // Two holes through a ball: Euler characteristic 2 − 2 · 2.
    expect(topologyCounts(mesh).euler).toBe(-2);
  });
});
