import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { nearestPlace } from '../packages/core/src/geometry/search/nearest';
import { type Mesh, vertexCount } from '../packages/core/src/geometry/mesh';
import { topologyOf } from '../packages/core/src/geometry/topology/topology';
import type { Vec3 } from '../packages/core/src/geometry/vec';
import { newStep } from '../packages/core/src/scene/make';
import { cutMesh } from '../packages/core/src/surfaces/edit/cutMesh';
import { type Dab, Painter } from '../packages/core/src/surfaces/edit/maskPainter';
import { sheet, torus } from '../packages/core/src/surfaces/make/solids';
import { distancesAlong } from '../packages/core/src/surfaces/fronts/wavefront';
import { sceneOf, testEvaluator } from '../packages/core/src/testing';
import { exponent, median, type Row } from './harness';

const corner = { places: { faces: Uint32Array.of(0), weights: Float32Array.of(1, 0, 0) } };
const spread = (mesh: Mesh): Promise<number> => {
  // Made once for a mesh and kept, as its tree is.
  void topologyOf(mesh).edges;
  return median(() => distancesAlong(mesh, corner), 3);
};

/** Nearest places beside three-mesh-bvh; distances and fronts over 100,000 vertices. */
export async function benchSurfaces(): Promise<Row[]> {
  const mesh = torus(1, 0.4, 160);
  const points = Array.from({ length: 5000 }, (_, k): Vec3 => [
    Math.sin(k) * 1.6,
    Math.sin(3 * k) * 0.6,
    Math.cos(2 * k) * 1.6,
  ]);
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setIndex(new BufferAttribute(mesh.indices.slice(), 1));
  const bvh = new MeshBVH(geometry);
  const place = new Vector3();
  const large = sheet(2, 2, 316);
  const field = Float32Array.from({ length: vertexCount(large) }, (_, i) => large.positions[3 * i + 1] - 0.9123);
  const scene = sceneOf([
    newStep('solid', { which: 'sheet', width: 2, height: 2, pieces: 316 }),
    newStep('front', {
      reach: {
        keys: [
          { frame: 1, value: 0, ease: 'linear' },
          { frame: 10_000, value: 3, ease: 'linear' },
        ],
        before: 'hold',
        after: 'hold',
      },
    }),
  ]);
  scene.range = [1, 10_000];
  const evaluator = testEvaluator();
  let frame = 0;
  const board = sheet(2, 2, 446);
  const painter = new Painter(board);
  painter.begin({ does: 'paint', radius: 0.2, strength: 1, soft: 0.5 });
  const dab = (x: number): Dab => ({ place: [x, 1, 0], normal: [0, 0, 1], pressure: 1 });
  let painted = 0;
  return [
    {
      what: `nearest places on ${mesh.indices.length / 3} faces, beside three-mesh-bvh`,
      ours: await median(() => points.forEach((point) => nearestPlace(mesh, point)), 5),
      theirs: await median(() => points.forEach(([x, y, z]) => bvh.closestPointToPoint(place.set(x, y, z))), 5),
      amount: points.length,
      unit: 'places',
    },
    {
      what: `distances along ${vertexCount(large)} vertices`,
      ours: await spread(large),
      theirs: null,
      amount: vertexCount(large),
      unit: 'vertices',
    },
    {
      what: 'a frame of a front over as many, its distances known',
      ours: await median(() => evaluator.evaluate(scene, ++frame), 9),
      theirs: null,
      amount: vertexCount(large),
      unit: 'vertices',
    },
    {
      what: 'a touch of a brush of a tenth of the form, on 200,000 vertices, beside what one step of a stroke may cost (16 ms)',
      ours: await median(() => {
        const x = ((painted += 0.013) % 1.6) - 0.8;
        painter.draw(dab(x), dab(x + 0.02));
      }, 25),
      theirs: null,
      amount: vertexCount(board),
      unit: 'vertices',
    },
    {
      what: 'a cut through as many',
      ours: await median(() => cutMesh(large, field), 5),
      theirs: null,
      amount: vertexCount(large),
      unit: 'vertices',
    },
  ];
}

/** What costs over surfaces grow with. */
export const surfaceExponents = async (): Promise<(readonly [string, number])[]> => [
  [
    'distances along a surface, vertices',
    await exponent([2500, 10_000, 40_000, 160_000], (n) => spread(sheet(2, 2, Math.round(Math.sqrt(n))))),
  ],
];
