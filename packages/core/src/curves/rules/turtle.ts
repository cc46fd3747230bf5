import { mapped } from '../../geometry/filled';
import { random } from '../../fields/random';
import { emptyColumns, NO_NAMED, oneNumber } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { NO_PARENT, type Paths, pathsFrom } from '../../geometry/paths';
import { about, fromAxes, turnedBy } from '../../geometry/turns';
import { add, cross, dot, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import type { Symbols } from './expand';

/** How a string of symbols is drawn. */
export interface Drawing {
  /** Generations that have passed, parts of one too. */
  age: number;
  /** Generations over which a symbol grows up. */
  growing: number;
  length: (birth: number) => number;
  /** Angle of a turn that says nothing of it, radians, and by how much each differs at most. */
  angle: number;
  vary: number;
  /** Factor of a `!` that says nothing of it. */
  thinner: number;
  /** How fast lines turn upwards, or below 0 downwards, radians a metre. */
  rising: number;
  /** Symbols that mark places. */
  marks: ReadonlySet<string>;
  seed: number;
}

/** What a turtle has left behind. */
export interface Drawn {
  paths: Paths | null;
  /** Polygons, as sheets. */
  mesh: Mesh | null;
  points: Points | null;
}

interface Turtle {
  place: Vec3;
  /** Heading, to the left, and up. */
  heading: Vec3;
  left: Vec3;
  up: Vec3;
  width: number;
  color: number;
  /** The path that is being drawn; −1 for none. */
  path: number;
  /** The path that the next one leaves, and at which of its points. */
  from: { path: number; point: number } | null;
  /** Length from the root, metres. */
  run: number;
}

interface Course {
  id: number;
  positions: number[];
  sizes: number[];
  births: number[];
  runs: number[];
  color: number;
  from: Turtle['from'];
}

/** What is shorter than this is not there yet, metres. */
const LEAST = 1e-7;

/**
 * Draws symbols as a turtle does (Abelson and diSessa, Turtle Geometry, 1982; in three dimensions Prusinkiewicz and Lindenmayer, The
 * Algorithmic Beauty of Plants, 1990, section 1.5), beginning at the origin and heading up. Symbols that came to be in the last
 * generations are as grown as they are old: lines lengthen and turns open, so that nothing pops.
 */
export function drawn({ letters, values, births, begins, ids }: Symbols, how: Drawing): Drawn {
  const courses: Course[] = [];
  const marks: { place: Vec3; heading: Vec3; left: Vec3; size: number; id: number }[] = [];
  const sheets: Vec3[][] = [];
  const open: Vec3[][] = [];
  const stack: Turtle[] = [];
  let turtle: Turtle = {
    place: [0, 0, 0],
    heading: [0, 1, 0],
    left: [-1, 0, 0],
    up: [0, 0, 1],
    width: 1,
    color: 0,
    path: -1,
    from: null,
    run: 0,
  };
  const grown = (i: number): number =>
    births[i] === 0 ? 1 : Math.min(1, Math.max(0, (how.age - births[i] + 1) / how.growing));
  /** Turns two of the axes from the first towards the second. */
  const turn = (a: 'heading' | 'left' | 'up', b: 'heading' | 'left' | 'up', by: number): void => {
    const [x, y] = [turtle[a], turtle[b]];
    const [c, s] = [Math.cos(by), Math.sin(by)];
    turtle = { ...turtle, [a]: add(scale(x, c), scale(y, s)), [b]: add(scale(y, c), scale(x, -s)) };
  };
  const angleOf = (i: number): number => {
    const own = values[i].length > 0 ? (values[i][0] * Math.PI) / 180 : how.angle;
    return (own + how.vary * (2 * random(how.seed, ids[i], 5) - 1)) * grown(i);
  };
  const lineTo = (place: Vec3, run: number, i: number): void => {
    if (turtle.path < 0) {
      turtle.path = courses.length;
      courses.push({
        id: ids[i],
        positions: [...turtle.place],
        sizes: [turtle.width],
        births: [births[i]],
        runs: [turtle.run],
        color: turtle.color,
        from: turtle.from,
      });
    }
    const course = courses[turtle.path];
    course.positions.push(...place);
    course.sizes.push(turtle.width);
    course.births.push(births[i]);
    course.runs.push(run);
  };
  for (let i = 0; i < letters.length; i++) {
    const letter = letters[i];
    switch (letter) {
      case 'F':
      case 'f': {
        const whole = values[i][0] ?? how.length(births[i]);
        const length = whole * (begins[i] + (1 - begins[i]) * grown(i));
        if (Math.abs(length) < LEAST) break;
        const place = add(turtle.place, scale(turtle.heading, length));
        const run = turtle.run + Math.abs(length);
        if (letter === 'F') lineTo(place, run, i);
        turtle = letter === 'F' ? { ...turtle, place, run } : { ...turtle, place, run, path: -1, from: null };
        open[open.length - 1]?.push(place);
        if (how.rising !== 0) lean(how.rising * length);
        break;
      }
      case '+':
        turn('heading', 'left', angleOf(i));
        break;
      case '-':
        turn('heading', 'left', -angleOf(i));
        break;
      case '^':
        turn('heading', 'up', angleOf(i));
        break;
      case '&':
        turn('heading', 'up', -angleOf(i));
        break;
      case '\\':
        turn('left', 'up', angleOf(i));
        break;
      case '/':
        turn('left', 'up', -angleOf(i));
        break;
      case '|':
        turn('heading', 'left', Math.PI);
        break;
      case '$': {
        const level = cross([0, 1, 0], turtle.heading);
        if (dot(level, level) > 1e-12) {
          const left = unit(level);
          turtle = { ...turtle, left, up: cross(turtle.heading, left) };
        }
        break;
      }
      case '!': {
        const to = values[i].length > 0 ? values[i][0] : turtle.width * how.thinner;
        turtle = { ...turtle, width: Math.max(0, turtle.width + (to - turtle.width) * grown(i)) };
        break;
      }
      case "'":
        turtle = { ...turtle, color: turtle.color + (values[i][0] ?? 1) };
        break;
      case '[': {
        stack.push(turtle);
        const { path } = turtle;
        const from = path < 0 ? turtle.from : { path, point: courses[path].positions.length / 3 - 1 };
        turtle = { ...turtle, path: -1, from };
        break;
      }
      case ']':
        turtle = stack.pop() ?? turtle;
        break;
      case '{':
        open.push([turtle.place]);
        break;
      case '.':
        open[open.length - 1]?.push(turtle.place);
        break;
      case '}': {
        const sheet = open.pop();
        if (sheet) sheets.push(sheet);
        break;
      }
      default:
        break;
    }
    if (how.marks.has(letter)) {
      const size = (values[i][0] ?? 1) * grown(i);
      if (size > 0) marks.push({ place: turtle.place, heading: turtle.heading, left: turtle.left, size, id: ids[i] });
    }
  }
  return { paths: pathsOf(courses), mesh: meshOf(sheets), points: pointsOf(marks) };

  /** Turns the heading upwards, or downwards, by an angle at most. */
  function lean(by: number): void {
    const axis = cross(turtle.heading, [0, 1, 0]);
    const square = Math.sqrt(dot(axis, axis));
    if (square < 1e-9) return;
    const around = about(unit(axis), by * square);
    const { heading, left, up } = turtle;
    turtle = { ...turtle, heading: turnedBy(around, heading), left: turnedBy(around, left), up: turnedBy(around, up) };
  }
}

function pathsOf(courses: readonly Course[]): Paths | null {
  if (courses.length === 0) return null;
  const taken = new Set<number>();
  const ids = courses.map(({ id }) => {
    while (taken.has(id) || id === NO_PARENT) id = (id + 1) >>> 0;
    taken.add(id);
    return id;
  });
  const paths = pathsFrom(courses.map(({ positions, sizes }, p) => ({ positions, size: sizes, id: ids[p] })));
  const longest = courses.reduce((most, { runs }) => Math.max(most, runs[runs.length - 1]), LEAST);
  const colors = courses.reduce((most, { color }) => Math.max(most, color), 0);
  const rest = ({ path, point }: NonNullable<Course['from']>): number => paths.u[paths.offsets[path] + point];
  const births = Float32Array.from(courses.flatMap((course) => course.births));
  return {
    ...paths,
    parent: mapped(Uint32Array, courses, ({ from }) => (from ? ids[from.path] : NO_PARENT)),
    attach: mapped(Float32Array, courses, ({ from }) => (from ? rest(from) : 0)),
    arrival: Float32Array.from(courses.flatMap(({ runs }) => runs.map((run) => run / longest))),
    level: colors > 0 ? mapped(Float32Array, courses, ({ color }) => color / colors) : null,
    named: { generation: oneNumber('point', births) },
  };
}

function pointsOf(
  marks: readonly { place: Vec3; heading: Vec3; left: Vec3; size: number; id: number }[],
): Points | null {
  if (marks.length === 0) return null;
  const n = marks.length;
  return {
    ...emptyColumns(POINTS, 'point', n),
    positions: Float32Array.from(marks.flatMap(({ place }) => place)),
    // What stands there grows along the heading.
    turns: Float32Array.from(marks.flatMap(({ heading, left }) => [...fromAxes(scale(left, -1), heading)])),
    size: mapped(Float32Array, marks, ({ size }) => size),
    ids: Uint32Array.from(marks.keys()),
    dice: mapped(Uint32Array, marks, ({ id }) => id),
    share: mapped(Float32Array, marks, (_, i) => (n > 1 ? i / (n - 1) : 0)),
    named: NO_NAMED,
  };
}

/** Sheets from the corners of polygons, each fanned out from its first; what is too small to be seen is left out. */
function meshOf(sheets: readonly Vec3[][]): Mesh | null {
  const [positions, normals, uvs, indices]: number[][] = [[], [], [], []];
  for (const raw of sheets) {
    const corners = raw.filter((corner, i) => i === 0 || far(corner, raw[i - 1]));
    if (corners.length > 1 && !far(corners[0], corners[corners.length - 1])) corners.pop();
    if (corners.length < 3) continue;
    let normal: Vec3 = [0, 0, 0];
    for (let i = 2; i < corners.length; i++)
      normal = add(normal, cross(sub(corners[i - 1], corners[0]), sub(corners[i], corners[0])));
    if (dot(normal, normal) < LEAST ** 4) continue;
    const first = positions.length / 3;
    corners.forEach((corner, i) => {
      positions.push(...corner);
      normals.push(...unit(normal));
      uvs.push(i / corners.length, 0);
      if (i > 1) indices.push(first, first + i - 1, first + i);
    });
  }
  if (indices.length === 0) return null;
  return meshWith({
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    uvs: Float32Array.from(uvs),
    indices: Uint32Array.from(indices),
  });
}

const far = (a: Vec3, b: Vec3): boolean => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > LEAST;
