import type { GeometryFormatId } from '@uvrex/formats';
import type {
  Clash,
  FitPair,
  Notice,
  Paths,
  Scene,
  Seam,
  Sheet,
  StepCost,
  Surface,
  TexturePixels,
  Trail,
  TrailTarget,
} from '@uvrex/core';
import type { Ball } from './boundingSphere';
import type { Crossing } from './columns';
import type { Tips } from './glowTips';

/** What the screen needs of a growth's form. Several forms may have an array in common: none is changed. */
export interface Shown {
  mesh: {
    positions: Float32Array;
    normals: Float32Array;
    indices: Uint32Array;
    colors: Float32Array | null;
    glow: Float32Array | null;
    /** Texture coordinates; null where there is no picture on it. */
    uvs: Float32Array | null;
    /** A ball round it, as drawing it asks for one; null where it is empty. */
    ball: Ball | null;
    /** Its colours are values to be read: no light falls on them. Put in by the page. */
    flat?: boolean;
  } | null;
  /**
   * Copies of items, which the screen holds under keys of their own: 16 numbers a copy, columns first; linear RGB each; their
   * stable numbers.
   */
  copies: { item: string; matrices: Float32Array; tints: Float32Array | null; ids: Uint32Array }[];
  /** A ball round all copies. */
  copiesBall: Ball | null;
  /** Places of loose points. */
  dots: Float32Array | null;
  /** Their stable numbers. */
  dotIds: Uint32Array | null;
  paths: Pick<Paths, 'positions' | 'offsets' | 'closed' | 'fronts' | 'ids' | 'u'> | null;
  /** Colours of points in which they are shown, loose ones or those of paths, 3 each, linear; put in by the page. */
  pointColors?: Float32Array;
  /** Ends of its paths that grow and shine. */
  tips: Tips | null;
  surface: Surface | null;
  /** The picture of its surface, no larger than the graphics take. */
  picture: TexturePixels | null;
}

/** How the copies of a growth go together: neighbours along paths, the worst first, and pairs that cut into each other. */
export interface FitReport {
  growth: string;
  fit: FitPair[];
  clashes: Clash[];
  /** Whether all clashes were looked for. */
  complete: boolean;
}

/** A box along the axes, metres. */
export interface Bounds {
  min: [number, number, number];
  max: [number, number, number];
}

/** A growth of a frame as it crosses to the page. */
export interface GrowthPayload {
  id: string;
  key: string;
  share: number | null;
  /** Length of its paths that is there, metres. */
  length: number;
  notices: Notice[];
  costs: StepCost[];
  counts: { points: number; faces: number; copies: number };
  bounds: Bounds | null;
  /** Box round all of it, of what has yet to grow as well; null where there is nothing. */
  whole: Bounds | null;
  /** Diagonal of all of it, of what has yet to grow as well, metres; null where there is nothing. */
  size: number | null;
  /** Courses that are not there yet, or no more, points of three numbers each, metres; none of what has very many paths. */
  ahead: number[][];
  failed: boolean;
  /** Keys of the items that its copies show. */
  items: string[];
  /** Null after a failure, and when the screen holds this key already. */
  shown: Shown | null;
}

/** A frame as it crosses to the page. */
export interface FramePayload {
  frame: number;
  milliseconds: number;
  /** Items of copies that the screen does not hold yet. */
  items: { key: string; shown: Shown }[];
  growths: GrowthPayload[];
}

/** A frame on its way to the page. */
export type SentFrame = Omit<FramePayload, 'items' | 'growths'> & {
  items: { key: string; shown: Crossing<Shown> }[];
  growths: SentGrowth[];
};
/** A growth of a frame, its arrays under keys. */
export type SentGrowth = Omit<GrowthPayload, 'shown'> & { shown: Crossing<Shown> | null };

/** The engine in its worker. Tickets rise; cancelling one gives up that evaluation. */
export interface EngineApi {
  load(scene: Scene): void;
  /** How many bytes of results are kept. */
  limit(cacheBytes: number): void;
  /** Null when it was given up, by whoever asked or past a limit, milliseconds. */
  evaluate(ticket: number, frame: number, limit?: number): Promise<SentFrame | null>;
  /** A geometry file of one frame; null when it was given up. Throws a plain error with the problem's text. */
  file(ticket: number, frame: number, format: GeometryFormatId): Promise<Uint8Array | null>;
  /** How the range closes. Null when it was given up. */
  seam(ticket: number): Promise<Seam | null>;
  /** The last frame of the shortest range that closes, null where none does. Null when it was given up. */
  loop(ticket: number): Promise<{ end: number | null } | null>;
  /** How copies go together at a frame, growth by growth. Null when it was given up. */
  fit(ticket: number, frame: number): Promise<FitReport[] | null>;
  /** Where a point travels. Null when it was given up. */
  trail(ticket: number, target: TrailTarget): Promise<Trail | null>;
  /** What the form of a growth knows at a frame, with its key. Null when it was given up, or when there is none. */
  sheets(ticket: number, frame: number, growth: string): Promise<{ key: string; sheets: Sheet[] } | null>;
  /** Answers when the worker has a moment: a sign of life. */
  ping(): void;
  cancel(ticket: number): void;
  /** The screen no longer holds these keys. */
  forget(keys: string[]): void;
}

/** Told by the worker while it works: signs of life, and the step about to run, or that none runs any more. */
export interface EngineNews {
  news: 'alive' | 'stage' | 'progress';
  /** Of a check that is being made, 0..1. */
  share?: number;
  growth?: string;
  step?: string;
}
