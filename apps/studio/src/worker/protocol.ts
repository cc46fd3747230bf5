import { type Notice, type Paths, type Scene, type Seam, type StepCost, type Surface } from '@uvrex/core';

/** What the screen needs of a growth's form, in arrays that are handed over. */
export interface Shown {
  mesh: {
    positions: Float32Array;
    normals: Float32Array;
    indices: Uint32Array;
    colors: Float32Array | null;
    glow: Float32Array | null;
  } | null;
  paths: Pick<Paths, 'positions' | 'offsets' | 'closed'> | null;
  surface: Surface | null;
}

export interface GrowthPayload {
  id: string;
  key: string;
  share: number | null;
  /** Length of its paths that is there, metres. */
  length: number;
  notices: Notice[];
  costs: StepCost[];
  counts: { points: number; faces: number; copies: number };
  bounds: { min: [number, number, number]; max: [number, number, number] } | null;
  failed: boolean;
  /** Null after a failure, and when the screen holds this key already. */
  shown: Shown | null;
}

export interface FramePayload {
  frame: number;
  milliseconds: number;
  growths: GrowthPayload[];
}

/** The engine in its worker. Tickets rise; cancelling one gives up that evaluation. */
export interface EngineApi {
  load(scene: Scene): void;
  /** Null when it was given up. */
  evaluate(ticket: number, frame: number): Promise<FramePayload | null>;
  /** A geometry file of one frame; null when it was given up. Throws a plain error with the problem's text. */
  file(ticket: number, frame: number, format: 'glb' | 'obj'): Promise<Uint8Array | null>;
  /** How the range closes. Null when it was given up. */
  seam(ticket: number): Promise<Seam | null>;
  /** The last frame of the shortest range that closes, null where none does. Null when it was given up. */
  loop(ticket: number): Promise<{ end: number | null } | null>;
  cancel(ticket: number): void;
  /** The screen no longer holds these keys. */
  forget(keys: string[]): void;
}

/** Told by the worker while it works: signs of life, and the step about to run. */
export interface EngineNews {
  news: 'alive' | 'stage';
  growth?: string;
  step?: string;
}
