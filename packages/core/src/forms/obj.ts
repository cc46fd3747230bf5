import { polygonFaces } from './polygon';
import { type Breathe, CHUNK, damaged, floats, FORM_LIMITS, integers, type RawForm, within } from './raw';
import { TextReader } from './text';
import { linearOf } from '../fields/srgb';

/**
 * Reads an OBJ file (Wavefront, Advanced Visualizer appendix B1, 1993): v with colours behind it where there are, vt, vn, f of
 * any number of corners by positive or negative numbers, o and g as parts. Lines and points, materials and curved
 * surfaces are passed over.
 * @throws Problem that names the line
 */
export async function readObj(bytes: Uint8Array, breathe: Breathe): Promise<RawForm> {
  const text = new TextReader(bytes);
  const [places, colors, turned, textured] = [floats(), floats(), floats(), floats()];
  const [positions, normals, uvs, tints, parts] = [floats(), floats(), floats(), floats(), floats()];
  const indices = integers();
  // At each place its corners one after another, with what else they know.
  const [heads, next, own] = [integers(), integers(), integers()];
  let part = 0;
  let used = false;
  let named = 0;
  let [anyNormal, anyUv] = [false, false];
  const wrong = (what: string): Error => damaged(`line ${text.line}: ${what}`);
  /** A number as it stands in a face, counted from 0; −1 where there is none. */
  const counted = (number: number, count: number, what: string): number => {
    const index = number < 0 ? count + number : number - 1;
    if (!Number.isInteger(number) || index < 0 || index >= count) throw wrong(`there is no ${what} ${number}`);
    return index;
  };
  const cornerAt = (): number => {
    const v = counted(text.number(), places.length / 3, 'corner');
    let [t, n] = [-1, -1];
    if (bytes[text.at] === SLASH) {
      text.at++;
      if (bytes[text.at] !== SLASH) t = counted(text.number(), textured.length / 2, 'texture coordinate');
      if (bytes[text.at] === SLASH) {
        text.at++;
        n = counted(text.number(), turned.length / 3, 'normal');
      }
    }
    while (heads.length <= v) heads.push(0);
    for (let corner = heads.values[v]; corner > 0; corner = next.values[corner - 1]) {
      const at = 3 * (corner - 1);
      if (own.values[at] === t + 1 && own.values[at + 1] === n + 1 && own.values[at + 2] === part) return corner - 1;
    }
    const made = positions.length / 3;
    next.push(heads.values[v]);
    heads.values[v] = made + 1;
    own.push(t + 1);
    own.push(n + 1);
    own.push(part);
    for (let c = 0; c < 3; c++) {
      positions.push(places.values[3 * v + c]);
      normals.push(n < 0 ? 0 : turned.values[3 * n + c]);
      tints.push(colors.length > 0 ? colors.values[3 * v + c] : 1);
    }
    for (let c = 0; c < 2; c++) uvs.push(t < 0 ? 0 : textured.values[2 * t + c]);
    parts.push(part);
    anyNormal ||= n >= 0;
    anyUv ||= t >= 0;
    return made;
  };
  for (let lines = 0; !text.ended; text.nextLine()) {
    if (++lines % CHUNK === 0) await breathe();
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
        while (colors.length < places.length - 3) colors.push(1);
        for (let c = 0; c < 3; c++) colors.push(more.length >= 3 ? linearOf(more[more.length - 3 + c]) : 1);
      }
    } else if (word === 'vn') for (let c = 0; c < 3; c++) turned.push(text.number() || 0);
    else if (word === 'vt') for (let c = 0; c < 2; c++) textured.push(text.number() || 0);
    else if (word === 'f') {
      const ring: number[] = [];
      while (!text.lineEnded) {
        const before = text.at;
        ring.push(cornerAt());
        if (text.at === before || ring.length > MOST_CORNERS) throw wrong('this is no face');
      }
      if (ring.length < 3) throw wrong('a face needs three corners');
      used = true;
      for (const corner of polygonFaces(positions.values, ring)) indices.push(corner);
      within(indices.length / 3, positions.length / 3);
    } else if ((word === 'o' || word === 'g') && used) {
      // A part begins with its first face.
      if (part + 1 < FORM_LIMITS.parts) part++;
      named++;
      used = false;
    }
    within(0, places.length / 3);
  }
  if (indices.length === 0) throw damaged('it holds no faces');
  return {
    positions: positions.done(),
    indices: indices.done(),
    normals: anyNormal ? normals.done() : null,
    uvs: anyUv ? uvs.done() : null,
    colors: colors.length > 0 ? tints.done() : null,
    parts: named > 0 ? parts.done() : null,
    up: 'y',
  };
}

const SLASH = 47;
const HASH = 35;
const MOST_CORNERS = 10_000;
