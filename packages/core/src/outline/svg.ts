import type SvgPath from 'svgpath';
import { Problem } from '../problem';
import { Pen } from './bezier';

const MOST_BYTES = 20e6;
const MOST_POINTS = 2e6;
const MOST_DEPTH = 200;

/** A path of a drawing. */
export interface DrawnContour {
  /** xy pairs in the drawing's own unit, y up. */
  points: number[];
  closed: boolean;
}

interface Node {
  tag: string;
  attributes: Record<string, string>;
  children: Node[];
}

/** Elements whose content is not drawn where it stands. */
const UNDRAWN = new Set([
  ...['defs', 'symbol', 'clipPath', 'mask', 'marker', 'pattern', 'linearGradient', 'radialGradient', 'filter'],
  ...['script', 'style', 'metadata', 'title', 'desc', 'foreignObject', 'image', 'use', 'text'],
]);

/**
 * The outlines of an SVG file (SVG 1.1 second edition, W3C 2011, chapters 7 to 9): path, rect, circle, ellipse, line,
 * polyline and polygon with the transforms of their groups. Nothing in the file is run or fetched.
 * @param tolerance share of the drawing's size by which curves may be flattened
 * @throws Problem for what is no SVG, and when nothing is drawn
 */
export async function svgContours(bytes: Uint8Array, tolerance = 0.0005): Promise<DrawnContour[]> {
  if (bytes.length > MOST_BYTES) {
    throw new Problem(
      `The SVG file is of ${Math.round(bytes.length / 1e6)} MB; 20 MB is the most.`,
      'Choose a smaller drawing.',
    );
  }
  const root = await parse(textOf(bytes));
  const { default: svgpath } = await import('svgpath');
  const pieces: ReturnType<typeof SvgPath>[] = [];
  const walk = (node: Node, transforms: string[], depth: number): void => {
    if (depth > MOST_DEPTH) throw new Problem('The SVG file nests its groups too deeply.', 'Flatten the groups.');
    if (UNDRAWN.has(node.tag) || node.attributes.display === 'none') return;
    const own = node.attributes.transform;
    const all = own ? [...transforms, own] : transforms;
    const d = pathOf(node);
    if (d) {
      const path = svgpath(withCommands(d));
      const fault = (path as unknown as { err: string }).err;
      if (fault)
        throw new Problem(
          `A path of the SVG file cannot be read: “${d.slice(0, 40)}${d.length > 40 ? ' …' : ''}”.`,
          'Save the drawing again.',
        );
      // The innermost transform works first.
      for (const transform of [...all].reverse()) path.transform(transform);
      pieces.push(path.abs().unarc().unshort());
    }
    for (const child of node.children) walk(child, all, depth + 1);
  };
  walk(root, [], 0);

  const size = sizeOf(pieces);
  const pen = new Pen(Math.max(size * tolerance, 1e-9));
  let [points, counted] = [0, 0];
  for (const piece of pieces) {
    piece.iterate((segment, _, x, y) => {
      const [command, ...n] = segment as [string, ...number[]];
      if (!n.every((x) => Math.abs(x) <= FURTHEST))
        throw new Problem(
          'The SVG file holds a coordinate that is beyond a million million units, or not finite.',
          'Draw it nearer to the origin, and save the drawing again.',
        );
      if (command === 'M') pen.move(n[0], -n[1]);
      else if (command === 'L') pen.line(n[0], -n[1]);
      else if (command === 'H') pen.line(n[0], -y);
      else if (command === 'V') pen.line(x, -n[0]);
      else if (command === 'C') pen.cubic(n[0], -n[1], n[2], -n[3], n[4], -n[5]);
      else if (command === 'Q') pen.quadratic(n[0], -n[1], n[2], -n[3]);
      else pen.end(true);
    });
    pen.end(false);
    for (; counted < pen.contours.length; counted++) points += pen.contours[counted].points.length / 2;
    if (points > MOST_POINTS)
      throw new Problem('The SVG file holds more than two million points.', 'Choose a simpler drawing.');
  }
  if (points === 0)
    throw new Problem(
      'There is no path in the SVG file.',
      'Turn its texts and pictures into paths, and save it again.',
    );
  return pen.contours;
}

function textOf(bytes: Uint8Array): string {
  // UTF-8 by hand would be our own code for nothing: every place this runs in has a decoder.
  const Decoder = (globalThis as unknown as { TextDecoder: new () => { decode(of: Uint8Array): string } }).TextDecoder;
  return new Decoder().decode(bytes);
}

async function parse(text: string): Promise<Node> {
  const { XMLParser, XMLValidator } = await import('fast-xml-parser');
  // Entities stay unread: they are how a small file becomes an endless one.
  if (/<!ENTITY/i.test(text))
    throw new Problem('The SVG file defines entities, which are not read.', 'Save it as plain SVG.');
  const valid = XMLValidator.validate(text, { allowBooleanAttributes: true });
  if (valid !== true)
    throw new Problem(
      `This is no sound SVG file: its XML is damaged in line ${valid.err.line}.`,
      'Save the drawing again as SVG.',
    );
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '',
    preserveOrder: true,
    processEntities: false,
    parseAttributeValue: false,
    parseTagValue: false,
    removeNSPrefix: true,
  });
  let raw: Record<string, unknown>[];
  try {
    raw = parser.parse(text) as Record<string, unknown>[];
  } catch {
    throw new Problem('This is no sound SVG file: it is not well-formed XML.', 'Save the drawing again as SVG.');
  }
  const nodes = raw.map((entry) => nodeOf(entry, 0));
  const root = nodes.find(({ tag }) => tag === 'svg');
  if (!root) throw new Problem('This is no SVG file: it has no svg element.', 'Choose an SVG file.');
  return root;
}

function nodeOf(raw: Record<string, unknown>, depth: number): Node {
  if (depth > MOST_DEPTH + 10) throw new Problem('The SVG file nests its groups too deeply.', 'Flatten the groups.');
  const tag = Object.keys(raw).find((key) => key !== ':@') ?? '';
  const inner = raw[tag];
  return {
    tag,
    attributes: styled((raw[':@'] ?? {}) as Record<string, string>),
    children: Array.isArray(inner) ? inner.map((child) => nodeOf(child as Record<string, unknown>, depth + 1)) : [],
  };
}

const styled = (attributes: Record<string, string>): Record<string, string> =>
  /(^|;)\s*display\s*:\s*none/.test(attributes.style ?? '') ? { ...attributes, display: 'none' } : attributes;

/** A shape as path data; null for elements that draw nothing. */
function pathOf({ tag, attributes }: Node): string | null {
  const number = (name: string, otherwise = 0): number => {
    const value = Number.parseFloat(attributes[name] ?? '');
    return Number.isFinite(value) ? value : otherwise;
  };
  const ring = (cx: number, cy: number, rx: number, ry: number): string | null =>
    rx > 0 && ry > 0
      ? `M${cx - rx} ${cy}A${rx} ${ry} 0 1 0 ${cx + rx} ${cy}A${rx} ${ry} 0 1 0 ${cx - rx} ${cy}Z`
      : null;
  switch (tag) {
    case 'path':
      return attributes.d?.trim() || null;
    case 'rect': {
      const [x, y, w, h] = [number('x'), number('y'), number('width'), number('height')];
      if (!(w > 0 && h > 0)) return null;
      const rx = Math.min(w / 2, number('rx', number('ry')));
      const ry = Math.min(h / 2, number('ry', number('rx')));
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
      const arc = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}H${x + w - rx}${arc(rx, ry)}V${y + h - ry}${arc(-rx, ry)}H${x + rx}${arc(-rx, -ry)}V${y + ry}${arc(rx, -ry)}Z`;
    }
    case 'circle':
      return ring(number('cx'), number('cy'), number('r'), number('r'));
    case 'ellipse':
      return ring(number('cx'), number('cy'), number('rx'), number('ry'));
    case 'line':
      return `M${number('x1')} ${number('y1')}L${number('x2')} ${number('y2')}`;
    case 'polyline':
    case 'polygon': {
      const numbers = (attributes.points ?? '').match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? [];
      if (numbers.length < 4) return null;
      const pairs = numbers.length - (numbers.length % 2);
      return `M${numbers.slice(0, pairs).join(' ')}${tag === 'polygon' ? 'Z' : ''}`;
    }
    default:
      return null;
  }
}

const NUMBER = /[\s,]*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)/iy;
const FLAG = /[\s,]*([01])/y;
/** What each set of parameters of a command consists of. */
const PARAMETERS: Record<string, readonly RegExp[]> = {
  ...{ m: Array(2).fill(NUMBER), l: Array(2).fill(NUMBER), t: Array(2).fill(NUMBER), h: [NUMBER], v: [NUMBER] },
  ...{ c: Array(6).fill(NUMBER), s: Array(4).fill(NUMBER), q: Array(4).fill(NUMBER) },
  a: [NUMBER, NUMBER, NUMBER, FLAG, FLAG, NUMBER, NUMBER],
};
/** Characters of one command from which its letter is put before each of its sets of numbers. */
const LONG = 2000;

/**
 * Path data whose long runs of one command name it before each set of numbers: what reads them takes time by the square of a
 * run's length. What is no number is left as it is, for the reader to tell of.
 */
function withCommands(d: string): string {
  if (d.length < LONG) return d;
  return d.replace(/[a-df-z][^a-df-z]*/gi, (run) => {
    const kinds = PARAMETERS[run[0].toLowerCase()];
    if (!kinds || run.length < LONG) return run;
    // After the first pair, a move goes on as lines.
    const next = run[0] === 'm' ? 'l' : run[0] === 'M' ? 'L' : run[0];
    const sets: string[] = [];
    for (let at = 1; ;) {
      const numbers: string[] = [];
      let end = at;
      for (const kind of kinds) {
        kind.lastIndex = end;
        const found = kind.exec(run);
        if (!found) return `${sets.join('')}${sets.length > 0 ? ' ' : run[0]}${run.slice(at)}`;
        numbers.push(found[1]);
        end = kind.lastIndex;
      }
      sets.push(`${sets.length === 0 ? run[0] : next}${numbers.join(' ')}`);
      at = end;
    }
  });
}

/** The larger side of the box round all ends and control points. */
function sizeOf(pieces: readonly ReturnType<typeof SvgPath>[]): number {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const piece of pieces) {
    piece.iterate((segment, _, x, y) => {
      const n = (segment as unknown[]).slice(1) as number[];
      const xs = segment[0] === 'V' ? [x] : segment[0] === 'H' ? n : n.filter((_, i) => i % 2 === 0);
      const ys = segment[0] === 'H' ? [y] : segment[0] === 'V' ? n : n.filter((_, i) => i % 2 === 1);
      for (const value of xs) [left, right] = [Math.min(left, value), Math.max(right, value)];
      for (const value of ys) [low, high] = [Math.min(low, value), Math.max(high, value)];
    });
  }
  return Math.max(right - left, high - low, 0);
} /** Coordinates beyond this would not be finite any more once they are scaled. */
const FURTHEST = 1e12;
