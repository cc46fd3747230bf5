import type { Scene } from '@uvrex/core';
import type { GrownPart } from './part';

/** The bytes of a file, as steps name it. */
export type BytesOf = (file: string) => Promise<Uint8Array>;

interface Told {
  id: string;
  /** Of its files' names, without the dot. */
  ending: string;
  /** Media type. */
  type: string;
  label: string;
  help: string;
}

/** Files of one frame each. */
export interface FrameFormat extends Told {
  takes: 'frame';
  /** The file of a frame. @param bytesOf the bytes of a file that the scene names: of a picture on a skin */
  write(frame: number, parts: readonly GrownPart[], scene: Scene, bytesOf: BytesOf): Promise<Uint8Array>;
}

/** One file of many frames, each of which adds a piece that hangs on no other: they can be made side by side. */
export interface SequenceFormat extends Told {
  takes: 'sequence';
  /** What comes before all pieces. */
  open(scene: Scene): Promise<Uint8Array>;
  /** The piece of a frame. */
  write(frame: number, parts: readonly GrownPart[], scene: Scene): Promise<Uint8Array>;
  /** What comes after all pieces. */
  close(scene: Scene): Promise<Uint8Array>;
}

/** A format of geometry or of what is measured of it. Pictures are made where there is a screen: see the studio's own list. */
export type GeometryFormat = FrameFormat | SequenceFormat;

const text = new TextEncoder();

/** All formats of geometry, for the studio and for the bake command alike; what writes them is loaded when it does. */
export const GEOMETRY_FORMATS = [
  {
    id: 'glb',
    takes: 'frame',
    ending: 'glb',
    type: 'model/gltf-binary',
    label: 'GLB',
    help: "This frame's geometry with colours",
    async write(_, parts, scene, bytesOf) {
      const { glbBytes } = await import('./glb');
      return glbBytes(parts, scene.name, bytesOf);
    },
  },
  {
    id: 'obj',
    takes: 'frame',
    ending: 'obj',
    type: 'model/obj',
    label: 'OBJ',
    help: "This frame's geometry as text",
    async write(_, parts) {
      const { objText } = await import('./obj');
      return text.encode([...objText(parts)].join(''));
    },
  },
  {
    id: 'csv',
    takes: 'sequence',
    ending: 'csv',
    type: 'text/csv',
    label: 'Growth table',
    help: 'What is measured, frame by frame',
    async open() {
      const { COLUMNS } = await import('./table');
      return text.encode(`${COLUMNS.join(',')}\r\n`);
    },
    async write(frame, parts) {
      const { measureRow } = await import('./table');
      const rows = parts.map((part) => measureRow(frame, part.name, part.form, part.share, part.milliseconds));
      return text.encode(rows.map((row) => `${row}\r\n`).join(''));
    },
    close: () => Promise.resolve(new Uint8Array(0)),
  },
] as const satisfies readonly GeometryFormat[];

export type GeometryFormatId = (typeof GEOMETRY_FORMATS)[number]['id'];

/** The format of an id. */
export const geometryFormat = (id: GeometryFormatId): GeometryFormat =>
  GEOMETRY_FORMATS.find((format) => format.id === id)!;

/** The name of a frame's file: frame_0012, and frame_-0012 before the first frame. */
export const frameName = (base: string, frame: number, ending: string): string =>
  `${base}_${frame < 0 ? '-' : ''}${String(Math.abs(frame)).padStart(4, '0')}.${ending}`;
