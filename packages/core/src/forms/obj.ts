import type { YieldNow } from '../yieldNow';
import { polygonFaces } from './polygon';
import {
  CHUNK,
  cornersWithin,
  damagedFile,
  floats,
  FORM_LIMITS,
  integers,
  PolygonPace,
  type RawForm,
  within,
} from './rawForm';
import { TextReader } from './text';
import { linearOf } from '../fields/srgb';

/**
 * Reads an OBJ file (Wavefront, Advanced Visualizer appendix B1, 1993): v with colours behind it where there are, vt, vn, f of
 * up to 4096 corners by positive or negative numbers, before or behind the places that they name, o and g as parts. Colours are
 * sRGB up to 1, or up to 255 where one is above 1. Lines and points, materials and curved
 * surfaces are passed over.
 * @throws Problem that names the line
 */
export async function readObj(bytes: Uint8Array, yieldNow: YieldNow): Promise<RawForm> {
  const text = new TextReader(bytes);
  const [places, colors, turned, textured] = [floats(), floats(), floats(), floats()];
  const [positions, normals, uvs, tints, parts] = [floats(), floats(), floats(), floats(), floats()];
  const indices = integers();
  // Corners of all faces by their numbers, and of each face its end, line and part: places may stand behind the faces that name them.
  const [corners, ends, faceLines, faceParts] = [integers(), integers(), integers(), integers()];
  // At each place its vertices one after another, with what else they know.
  const [next, own] = [integers(), integers()];
  let heads = new Uint32Array(0);
  /** The most that a channel of a colour comes to: files have them up to 1 or up to 255. */
  let scale = 1;
  let part = 0;
  let used = false;
  let partsNamed = 0;
  let [anyNormal, anyUv] = [false, false];
  const wrong = (what: string): Error => damagedFile(`line ${text.line}: ${what}`);
  /** A number as it stands in a face, counted from 1; those that count back do so from where they stand. */
  const named = (number: number, count: number, what: string): number => {
    if (!Number.isInteger(number) || number === 0 || number < -count) throw wrong(`there is no ${what} ${number}`);
    return number < 0 ? count + number + 1 : number;
  };
  /** Reads a corner: its numbers of place, texture coordinate and normal; 0 for none. */
  const readCorner = (): void => {
    const v = named(text.number(), places.length / 3, 'corner');
    let [t, n] = [0, 0];
    if (bytes[text.at] === SLASH) {
      text.at++;
      if (bytes[text.at] !== SLASH) t = named(text.number(), textured.length / 2, 'texture coordinate');
      if (bytes[text.at] === SLASH) {
        text.at++;
        n = named(text.number(), turned.length / 3, 'normal');
      }
    }
    for (const number of [v, t, n]) corners.push(number);
  };
  const known = (line: number, number: number, count: number, what: string): void => {
    if (number > count) throw damagedFile(`line ${line}: there is no ${what} ${number}`);
  };
  /** The vertex that a corner is, one for all corners that know the same. */
  const vertexOf = (corner: number, of: number, line: number): number => {
    const [v, t, n] = [0, 1, 2].map((c) => corners.values[3 * corner + c]);
    known(line, v, places.length / 3, 'corner');
    known(line, t, textured.length / 2, 'texture coordinate');
    known(line, n, turned.length / 3, 'normal');
    for (let vertex = heads[v - 1]; vertex > 0; vertex = next.values[vertex - 1]) {
      const at = 3 * (vertex - 1);
      if (own.values[at] === t && own.values[at + 1] === n && own.values[at + 2] === of) return vertex - 1;
    }
    const made = positions.length / 3;
    next.push(heads[v - 1]);
    heads[v - 1] = made + 1;
    for (const number of [t, n, of]) own.push(number);
    for (let c = 0; c < 3; c++) {
      const color = colors.length > 0 ? colors.values[3 * (v - 1) + c] : WHITE;
      positions.push(places.values[3 * (v - 1) + c]);
      normals.push(n === 0 ? 0 : turned.values[3 * (n - 1) + c]);
      tints.push(color === WHITE ? 1 : linearOf(color / scale));
    }
    for (let c = 0; c < 2; c++) uvs.push(t === 0 ? 0 : textured.values[2 * (t - 1) + c]);
    parts.push(of);
    anyNormal ||= n > 0;
    anyUv ||= t > 0;
    return made;
  };
  for (let lines = 0; !text.ended; text.nextLine()) {
    if (++lines % CHUNK === 0) await yieldNow();
    if (text.lineEnded || bytes[text.at] === HASH) continue;
    const word = text.word();
    if (word === 'v') {
      for (let c = 0; c < 3; c++) {
        const value = text.number();
        if (Number.isNaN(value)) throw wrong('a corner needs three numbers');
        places.push(value);
      }
      // Either a weight, or a colour, follows where anything does.
      const more: number[] = [];
      while (!text.lineEnded && more.length < 4) {
        const value = text.number();
        if (Number.isNaN(value)) break;
        more.push(value);
      }
      if (more.length >= 3 || colors.length > 0) {
        // Corners before the first that has a colour are white.
        while (colors.length < places.length - 3) colors.push(WHITE);
        for (let c = 0; c < 3; c++) {
          const value = more.length >= 3 ? more[more.length - 3 + c] : WHITE;
          if (value > 1) scale = 255;
          colors.push(value);
        }
      }
    } else if (word === 'vn') for (let c = 0; c < 3; c++) turned.push(text.number() || 0);
    else if (word === 'vt') for (let c = 0; c < 2; c++) textured.push(text.number() || 0);
    else if (word === 'f') {
      const first = corners.length / 3;
      while (!text.lineEnded) {
        const before = text.at;
        readCorner();
        if (text.at === before) throw wrong('this is no face');
      }
      const count = corners.length / 3 - first;
      if (count < 3) throw wrong('a face needs three corners');
      cornersWithin(count);
      used = true;
      ends.push(corners.length / 3);
      faceLines.push(text.line);
      faceParts.push(part);
      within(ends.length, places.length / 3);
    } else if ((word === 'o' || word === 'g') && used) {
      // A part begins with its first face.
      if (part + 1 < FORM_LIMITS.parts) part++;
      partsNamed++;
      used = false;
    }
    within(0, places.length / 3);
  }
  if (ends.length === 0) throw damagedFile('it holds no faces');
  heads = new Uint32Array(places.length / 3);
  const pace = new PolygonPace();
  for (let f = 0; f < ends.length; f++) {
    const first = f === 0 ? 0 : ends.values[f - 1];
    const ring: number[] = [];
    for (let corner = first; corner < ends.values[f]; corner++)
      ring.push(vertexOf(corner, faceParts.values[f], faceLines.values[f]));
    for (const vertex of polygonFaces(positions.values, ring)) indices.push(vertex);
    within(indices.length / 3, positions.length / 3);
    if (f % CHUNK === CHUNK - 1 || pace.add(ring.length)) await yieldNow();
  }
  return {
    positions: positions.done(),
    indices: indices.done(),
    normals: anyNormal ? normals.done() : null,
    uvs: anyUv ? uvs.done() : null,
    colors: colors.length > 0 ? tints.done() : null,
    parts: partsNamed > 0 ? parts.done() : null,
    up: 'y',
  };
}

/** Stands for a channel of a corner that has no colour. */
const WHITE = -1;
const SLASH = 47;
const HASH = 35;
