'use client';

import { useEffect, useRef, useState } from 'react';
import { Raycaster, Vector2 } from 'three';
import {
  byAxis,
  type BrushStroke,
  cross,
  distance,
  type Growth,
  type Step,
  type Stroke,
  sub,
  unit,
  type Vec3,
} from '@uvrex/core';
import { type Dab, meshWith, Painter, putFalseColour, rayHit, treeOf } from '@uvrex/core/page';
import { ownFrame, setParam } from '@/state/actions/valueActions';
import { growthIn, stepIn, useDocument } from '@/state/document/document';
import { shadedColumn, useInspection } from '@/state/director/inspection';
import { stopPainting } from '@/state/actions/painting';
import { useResults } from '@/state/director/results';
import { setView, useView } from '@/state/document/view';
import type { Shown } from '@/worker/protocol';
import { type Spot, useDrag } from '@/ui/drag';
import { INK } from '@/ui/theme';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { toScreen, useProjection } from '../state/director/projection';
import { skinColours } from './shading';

/** Share of the radius that the pointer travels between two recorded places. */
const APART = 0.16;
/** Corners of the ring that shows the brush. */
const RING = 40;
/** Pixels of a drag over which the brush becomes twice as wide. */
const DOUBLE = 120;

type Skin = NonNullable<Shown['mesh']>;
const meshes = new WeakMap<Skin, ReturnType<typeof meshWith>>();

/** A skin on screen as the core looks things up on it; made once, with its tree. */
function meshOf(skin: Skin): ReturnType<typeof meshWith> {
  let mesh = meshes.get(skin);
  if (!mesh) {
    const { positions, normals, indices } = skin;
    meshes.set(skin, (mesh = meshWith({ positions, normals, indices, uvs: new Float32Array(0) })));
  }
  return mesh;
}

/** The skin of a growth that is on screen. */
const skinOf = (growth: string): Skin | null =>
  useResults.getState().onScreen.find(({ id }) => id === growth)?.shown.mesh ?? null;

/** The brush over the form whose mask is being painted. */
export function PaintLayer() {
  const placing = useView((state) => state.placing);
  const growth = useDocument((state) => growthIn(state.scene, placing?.growth ?? null));
  const step = useDocument((state) => placing && stepIn(state.scene, placing.growth, placing.step));
  const gone = !placing || !growth || !step;
  useEffect(() => {
    if (gone) stopPainting();
  }, [gone]);
  return gone ? null : <Brushing growth={growth} step={step} param={placing.param} />;
}

/** A stroke under way. */
interface Under {
  painter: Painter;
  does: BrushStroke['does'];
  points: number[];
  last: Dab[];
  /** The colours of the form before it; null where it shows none. */
  before: Float32Array | null;
}

function Brushing({ growth, step, param }: { growth: Growth; step: Step; param: string }) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const brush = useView((state) => state.brush);
  const space = useOwnSpace(growth);
  const layer = useRef<HTMLDivElement>(null);
  const [over, setOver] = useState<Dab | null>(null);
  const scale = distance(space.toWorld([1, 0, 0]), space.toWorld([0, 0, 0]));
  const dabAt = ({ x, y }: Spot, event: PointerEvent): Dab | null => {
    const mesh = skinOf(growth.id);
    const { camera, width, height } = useProjection.getState();
    if (!mesh || !camera) return null;
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera);
    const { origin, direction } = ray.ray;
    const whole = meshOf(mesh);
    const hit = rayHit(whole, [origin.x, origin.y, origin.z], [direction.x, direction.y, direction.z]);
    if (!hit) return null;
    const place = origin.clone().addScaledVector(direction, hit.distance);
    const [a, b, c] = [0, 1, 2].map((k): Vec3 => {
      const i = 3 * whole.indices[3 * hit.face + k];
      return [whole.positions[i], whole.positions[i + 1], whole.positions[i + 2]];
    });
    return {
      place: [place.x, place.y, place.z],
      normal: unit(cross(sub(b, a), sub(c, a))),
      pressure: event.pointerType === 'pen' ? event.pressure : 1,
    };
  };
  /** A dab and its image, where the mask is mirrored. */
  const sides = (dab: Dab): Dab[] => {
    const { mirror, plane } = step.params;
    const axis = 'xyz'.indexOf(String(mirror ?? 'none'));
    if (axis < 0) return [dab];
    const { toOwn, toWorld } = space;
    const across = (place: Vec3): Vec3 => {
      const own = [...toOwn(place)] as [number, number, number];
      own[axis] = 2 * Number(plane ?? 0) - own[axis];
      return toWorld(own);
    };
    const place = dab.place as Vec3;
    const image = across(place);
    const ahead = across(byAxis((c) => place[c] + dab.normal[c]));
    return [dab, { place: image, normal: unit(sub(ahead, image)), pressure: dab.pressure }];
  };
  const draw = ({ painter, last }: Under, dabs: Dab[]): void => {
    const colours = skinColours(growth.id);
    dabs.forEach((dab, side) => {
      for (const i of painter.draw(last[side] ?? dab, dab))
        if (colours) putFalseColour(colours, i, painter.values[i], 0, 1);
    });
    useProjection.getState().recolour(growth.id);
  };
  const record = (under: Under, dab: Dab): void => {
    const round = (x: number): number => Math.round(x * 1e5) / 1e5;
    under.points.push(...space.toOwn(dab.place as Vec3).map(round), round(dab.pressure));
    under.last = sides(dab);
  };
  /** Begins a stroke where the pointer is on the form; null beside it: there the view is turned as ever. */
  const begin = (at: Spot, event: PointerEvent): Under | null => {
    const dab = dabAt(at, event);
    const mesh = skinOf(growth.id);
    if (!dab || !mesh) return null;
    const { shade } = useView.getState();
    const column = shade && shadedColumn(shade, useInspection.getState().inspected);
    const known = column?.values.length === mesh.positions.length / 3 ? column.values : undefined;
    const painter = new Painter(meshOf(mesh), known);
    const { does, radius, strength, soft } = brush;
    const how = event.altKey ? (does === 'erase' ? 'paint' : 'erase') : does;
    painter.begin({ does: how, radius: radius * scale, strength, soft });
    const before = skinColours(growth.id)?.slice() ?? null;
    const stroke: Under = { painter, does: how, points: [], last: [], before };
    draw(stroke, sides(dab));
    record(stroke, dab);
    return stroke;
  };
  /** Takes a stroke into the mask. */
  const keep = ({ does, points }: Under): void => {
    const { radius, strength, soft } = brush;
    const frame = ownFrame(growth, useView.getState().frame);
    const made: Stroke = { does, radius, strength, soft, frame, points };
    setParam(growth.id, step.id, param, [...((step.params[param] ?? []) as Stroke[]), made]);
  };
  /** Shows the form as it was before a stroke. */
  const forget = ({ before }: Under): void => {
    const colours = skinColours(growth.id);
    if (before?.length === colours?.length) colours?.set(before!);
    useProjection.getState().recolour(growth.id);
  };
  useDrag<void, Under | { radius: number }>({
    within: () => layer.current?.parentElement ?? null,
    take(_, { at, event }) {
      if (!(event.target instanceof HTMLCanvasElement)) return null;
      if (event.shiftKey) return { radius: brush.radius };
      return begin(at, event);
    },
    move(_, { at, by, event }, held) {
      if ('radius' in held) {
        const radius = Math.min(1000, Math.max(0.0001, held.radius * 2 ** (by.x / DOUBLE)));
        setView(({ brush: old }) => ({ brush: { ...old, radius } }));
        return;
      }
      const dab = dabAt(at, event);
      if (!dab || distance(dab.place as Vec3, held.last[0].place as Vec3) < APART * brush.radius * scale) return;
      draw(held, sides(dab));
      record(held, dab);
    },
    end(_, held, ending) {
      if (!('radius' in held)) (ending === 'taken back' ? forget : keep)(held);
      else if (ending === 'taken back') setView(({ brush: old }) => ({ brush: { ...old, radius: held.radius } }));
    },
  });

  const hover = useRef<(event: PointerEvent) => void>(() => undefined);
  useEffect(() => {
    hover.current = (event) => {
      // While the brush is sized by the pointer its ring stays.
      if (event.shiftKey && event.buttons === 1) return;
      const box = layer.current!.parentElement!.getBoundingClientRect();
      const on = event.target instanceof HTMLCanvasElement || event.buttons === 1;
      setOver(on ? dabAt({ x: event.clientX - box.left, y: event.clientY - box.top }, event) : null);
    };
  });
  useEffect(() => {
    const box = layer.current!.parentElement!;
    const move = (event: PointerEvent): void => hover.current(event);
    const leave = (): void => setOver(null);
    // The tree is made before the first touch wants it.
    const first = skinOf(growth.id);
    if (first) treeOf(meshOf(first));
    box.addEventListener('pointermove', move);
    box.addEventListener('pointerleave', leave);
    return () => {
      box.removeEventListener('pointermove', move);
      box.removeEventListener('pointerleave', leave);
    };
  }, [growth.id]);

  return (
    <>
      <div ref={layer} hidden />
      {over && <Ring dab={over} radius={brush.radius * scale} />}
    </>
  );
}

/** The border of the brush, flat on the form. */
function Ring({ dab, radius }: { dab: Dab; radius: number }) {
  const projection = useProjection.getState();
  const place = dab.place as Vec3;
  const normal = dab.normal as Vec3;
  const aside = unit(cross(normal, Math.abs(normal[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]));
  const other = cross(normal, aside);
  const corners = Array.from({ length: RING }, (_, i) => {
    const [x, y] = [Math.cos((2 * Math.PI * i) / RING), Math.sin((2 * Math.PI * i) / RING)];
    const corner = byAxis((c) => place[c] + radius * (x * aside[c] + y * other[c]));
    const dot = toScreen(corner, projection);
    return dot ? `${dot.x.toFixed(1)},${dot.y.toFixed(1)}` : '';
  }).join(' ');
  return (
    <Overlay role="img" label="Brush">
      <polygon points={corners} fill="none" stroke={INK.deep} strokeWidth={3.5} opacity={0.6} />
      <polygon points={corners} fill="none" stroke={INK.text} strokeWidth={1.5} />
    </Overlay>
  );
}
