import type { Form } from '../geometry/form';
import type { Place } from '../problem';
import type { Growth, Step } from '../scene/schema';
import type { ShippedId } from '../scene/shippedFiles';
import type { Budgets } from './budgets';
import type { Fix } from './traces';

/** Something that a person should know about one step of the result. */
export interface Notice {
  /** `error`: the growth has no result. `skipped`: the step was passed over, the rest went on. `note`: good to know. */
  level: 'error' | 'skipped' | 'note';
  what: string;
  advice: string;
  place: Place;
  fix?: Fix;
}

/** What one step cost in this evaluation. */
export interface StepCost {
  step: string;
  milliseconds: number;
  /** The result was kept from before. */
  kept: boolean;
}

/** What a growth comes to at a frame: its form under a key, how much has grown, what there is to say, and what each step cost. */
export interface GrowthResult {
  id: string;
  /** Names the result: the same key is the same geometry, to the bit. */
  key: string;
  /** Null after an error. */
  form: Form | null;
  /** Share of its whole path length that has grown, 0..1; null without paths. */
  share: number | null;
  notices: Notice[];
  costs: StepCost[];
}

/** What a scene comes to at a frame. */
export interface FrameResult {
  frame: number;
  growths: GrowthResult[];
  milliseconds: number;
}

/** What the evaluator asks of the place it runs in. */
export interface Surroundings {
  /** A clock in milliseconds. */
  now: () => number;
  /** Lets waiting messages in; called about every 12 ms of work. */
  pause?: () => Promise<void>;
  /** Told before each step that has to run, for progress and for finding what was at work in a crash. */
  stage?: (growth: Growth, step: Step) => void;
  budgets?: Partial<Budgets>;
  /** Bytes of a file of the scene, by the hash of them; undefined where they are not to be had. */
  file?: (id: string) => Promise<Uint8Array | undefined>;
  /** Bytes of a file that comes with Uvrex. */
  shipped?: (id: ShippedId) => Promise<Uint8Array>;
}

/** Says whether an evaluation is still wanted. */
export interface Wanted {
  readonly aborted: boolean;
}
