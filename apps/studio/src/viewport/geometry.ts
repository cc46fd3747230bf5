import { BufferAttribute, BufferGeometry, Sphere, Vector3 } from 'three';
import type { Ball } from '@/worker/boundingSphere';
import type { Shown } from '@/worker/protocol';

/** What is made into a geometry; where no ball round it is known, three.js finds one when it is asked. */
type Meshed = Omit<NonNullable<Shown['mesh']>, 'ball' | 'flat'> & { ball?: Ball | null };

/** Arrays as three.js holds them, and how many geometries they are part of: what frames have in common is handed over once. */
const attributes = new WeakMap<Numbers, { attribute: BufferAttribute; users: number }>();
type Numbers = Float32Array | Uint32Array;

function attributeOf(array: Numbers, width: number): BufferAttribute {
  let known = attributes.get(array);
  if (!known) attributes.set(array, (known = { attribute: new BufferAttribute(array, width), users: 0 }));
  known.users++;
  return known.attribute;
}

/** Whether no geometry has the attribute any more, once one has let it go. */
function letGo(attribute: BufferGeometry['attributes'][string]): boolean {
  const known = attributes.get(attribute.array as Numbers);
  if (known?.attribute !== attribute) return true;
  return --known.users === 0;
}

/** A skin as three.js holds it; to be let go of by `releaseGeometry`. */
export function meshGeometry(mesh: Meshed): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', attributeOf(mesh.positions, 3));
  geometry.setAttribute('normal', attributeOf(mesh.normals, 3));
  if (mesh.colors) geometry.setAttribute('color', attributeOf(mesh.colors, 3));
  if (mesh.glow) geometry.setAttribute('glow', attributeOf(mesh.glow, 1));
  if (mesh.uvs) geometry.setAttribute('uv', attributeOf(mesh.uvs, 2));
  geometry.setIndex(attributeOf(mesh.indices, 1));
  if (mesh.ball) geometry.boundingSphere = new Sphere(new Vector3(...mesh.ball.centre), mesh.ball.radius);
  return geometry;
}

/** Disposes of a geometry, but for what others have in common with it: three.js would take that from the graphics too. */
export function releaseGeometry(geometry: BufferGeometry): void {
  for (const [name, attribute] of Object.entries(geometry.attributes))
    if (!letGo(attribute)) geometry.deleteAttribute(name);
  if (geometry.index && !letGo(geometry.index)) geometry.setIndex(null);
  geometry.dispose();
}
