import { add, scale, sub, type Vec3 } from '../geometry/vec';
import type { Resolved } from './declare';
import { lies } from './start/planeParam';

/** Something of a start that is taken hold of in the view. */
export interface Handle {
  label: string;
  /** Where it is, in the growth's own space, metres. */
  at: Vec3;
  /** What its parameters become when it is put elsewhere. */
  set: (place: Vec3) => Readonly<Record<string, number>>;
}

const AXES = ['X', 'Y', 'Z'] as const;
const number = (p: Resolved, name: string): number => Number(p[name]);

const placeIn = (p: Resolved, prefix: string): Vec3 => [
  number(p, `${prefix}X`),
  number(p, `${prefix}Y`),
  number(p, `${prefix}Z`),
];

/** A place of three numbers that is dragged as it is. */
const place = (p: Resolved, prefix: string, label: string): Handle => ({
  label,
  at: placeIn(p, prefix),
  set: (to) => Object.fromEntries(AXES.map((axis, c) => [`${prefix}${axis}`, to[c]])),
});

/** Something that stands a length away from a middle in a direction; put elsewhere, the length is how far along it that is. */
const along = (p: Resolved, name: string, label: string, from: Vec3, way: Vec3): Handle => ({
  label,
  at: add(from, scale(way, number(p, name))),
  set: (to) => ({ [name]: sub(to, from).reduce((sum, x, c) => sum + x * way[c], 0) }),
});

/** A length from side to side of a middle, called as its parameter is. */
const half = (p: Resolved, name: string, middle: Vec3, way: Vec3): Handle => {
  const label = name[0].toUpperCase() + name.slice(1);
  const handle = along({ ...p, [name]: number(p, name) / 2 }, name, label, middle, way);
  return { ...handle, set: (to) => ({ [name]: 2 * handle.set(to)[name] }) };
};

/** A radius about an upright axis through a place. */
const about = (p: Resolved, name: string, label: string, middle: Vec3, way: Vec3 = [1, 0, 0]): Handle => ({
  ...along(p, name, label, middle, way),
  set: (to) => ({ [name]: Math.hypot(to[0] - middle[0], to[2] - middle[2]) }),
});

const only =
  (prefix: string, label: string) =>
  (p: Resolved): Handle[] => [place(p, prefix, label)];
const ORIGIN: Vec3 = [0, 0, 0];
const UP: Vec3 = [0, 1, 0];

/** What starts are taken hold of by, by their kind. */
export const HANDLES: Readonly<Record<string, (p: Resolved) => Handle[]>> = {
  line: (p) => [place(p, 'from', 'From'), place(p, 'to', 'To')],
  catenary: (p) => [place(p, 'from', 'From'), place(p, 'to', 'To')],
  fractal: only('base', 'Base'),
  rock(p) {
    const at = placeIn(p, 'at');
    return [
      place(p, 'at', 'Place'),
      half(p, 'width', at, [1, 0, 0]),
      half(p, 'depth', at, [0, 0, 1]),
      along(p, 'height', 'Height', at, UP),
    ];
  },
  volume(p) {
    if (p.where === 'form') return [];
    const at = placeIn(p, 'at');
    return [
      place(p, 'at', 'Middle'),
      half(p, 'width', at, [1, 0, 0]),
      half(p, 'height', at, UP),
      half(p, 'depth', at, [0, 0, 1]),
    ];
  },
  helix(p) {
    const base = placeIn(p, 'base');
    const turn = (number(p, 'start') * Math.PI) / 180;
    const way: Vec3 = [Math.cos(turn), 0, -Math.sin(turn)];
    const top = add(base, [0, number(p, 'height'), 0]);
    return [
      place(p, 'base', 'Base'),
      about(p, 'below', 'Base radius', base, way),
      along(p, 'height', 'Height', base, UP),
      about(p, 'above', 'Top radius', top),
    ];
  },
  arc(p) {
    const middle = placeIn(p, 'middle');
    const turn = (number(p, 'start') * Math.PI) / 180;
    const plane = String(p.lies);
    return [
      place(p, 'middle', 'Middle'),
      {
        ...along(p, 'radius', 'Radius', middle, lies(plane, Math.cos(turn), Math.sin(turn))),
        set: (to) => ({ radius: Math.hypot(...sub(to, middle)) }),
      },
    ];
  },
  solid(p) {
    const at = placeIn(p, 'at');
    const round = !['box', 'sheet', 'link', 'letters'].includes(String(p.which));
    const tall = ['cylinder', 'cone', 'crystal'].includes(String(p.which));
    return [
      place(p, 'at', 'Place'),
      ...(round ? [along(p, 'radius', 'Radius', at, [1, 0, 0])] : []),
      ...(tall ? [along(p, 'height', 'Height', at, UP)] : []),
    ];
  },
  phyllotaxis: (p) => [
    about(p, 'radius', 'Radius', ORIGIN),
    ...(p.which === 'disc' ? [] : [along(p, 'height', 'Height', ORIGIN, UP)]),
  ],
  colonise: (p) => [
    ...(['growth', 'form', 'skin'].includes(String(p.where)) ? [] : [place(p, 'at', 'Middle')]),
    place(p, 'root', 'Root'),
  ],
  burst: (p) => (p.begins === 'place' ? [place(p, 'at', 'Place')] : []),
  wander: (p) => (p.begins === 'place' ? [place(p, 'at', 'Place')] : []),
  web: (p) => [
    ...(['growth', 'tips'].includes(String(p.where)) ? [] : [place(p, 'at', 'Middle')]),
    place(p, 'hub', 'Hub'),
  ],
  ruffle: (p) => (['ring', 'line'].includes(String(p.begin)) ? [place(p, 'at', 'Middle')] : []),
};
