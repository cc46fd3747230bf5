// What is used of the core from outside; all else is its own.

// Scenes: what they are, how they are read, mended and changed
export { bestPlace, placesCopies, skinsPaths } from './scene/bestPlace';
export { CAMERA } from './scene/owners';
export { kindsGiven } from './scene/growthKinds';
export {
  type Clip,
  CLIP_FORMAT,
  growthClip,
  growthsClip,
  keyClip,
  readClip,
  stepClip,
  trackClip,
  tracksOfClip,
  writeClip,
} from './scene/clip';
export { type Fault, faultOfScene, namedPlace } from './scene/faults';
export { isShown, lateOf, membersOf, withoutGroups } from './scene/groups';
export { LIMITS } from './scene/limits';
export { lookAt, type SceneLook } from './scene/look';
export {
  defaultsOf,
  growingSteps,
  growingTo,
  HUES,
  newGrowth,
  newId,
  newScene,
  newStep,
  unusedName,
} from './scene/make';
export { gentleChanges, mendScene, putAt } from './scene/repairScene';
export {
  declarationOf,
  GUIDE,
  type Guide,
  LIGHT,
  newGuide,
  type OwnerDeclaration,
  ownerIn,
  ownersOf,
  placeOwner,
  SCENE_ID,
  sceneOwners,
} from './scene/owners';
export { fittedNumber, paramFault } from './scene/params';
export { checkScene, presentScene, readScene, writeScene } from './scene/read';
export { READY_ITEMS, type ReadyItem } from './scene/readyItems';
export type { Files, PackedScene } from './scene/sceneFile';
export { SHIPPED_FILES, type ShippedId } from './scene/shippedFiles';
export { FORM_ACCEPT, FORM_NAMES } from './forms/formFormats';
export {
  baseOf,
  type Driven,
  type Growth,
  type GrowthGroup,
  isFormula,
  isTrack,
  isVaried,
  type ParamValue,
  type Scene,
  type SceneFile,
  type SceneGuide,
  type Step,
  type Variation,
  withBase,
} from './scene/schema';
export { shareStructure } from './scene/structuralSharing';
export { type Clock, formulaNames, GrowthValues, shownFactor } from './scene/values';
export { attributeOf, DRIVABLE, type VariationKind } from './scene/vary';

// Steps, and how they are declared
export {
  type Family,
  type FileParam,
  type GrowthParam,
  type NumberParam,
  type ParamConstant,
  type ParamSpec,
  type ProfileParam,
  type Resolved,
  type StepDeclaration,
  type StepPreset,
  type TextParam,
  type Unit,
  USES,
} from './steps/declare';
export { formatCount, figure } from './format';
export { stepOf, STEPS } from './steps/index';
export { growthPlace } from './steps/shape/growthPlace';

// From a scene and a frame to forms
export { draftScene } from './evaluate/draftScene';
export { Evaluator } from './evaluate/evaluator';
export { references } from './scene/references';
export type { FrameResult, GrowthResult, Notice, StepCost, Wanted } from './evaluate/results';

// Geometry
export { boxAround, middleOf, sidesOf } from './geometry/box';
export { copiesOfSeats, wholeMesh } from './geometry/copies';
export { pathsAhead, wholeBoundsOf } from './geometry/extent';
export { filled, mapped } from './geometry/filled';
export { boundsOf, type Copies, countsOf, emptyForm, type Form, type FormKind } from './geometry/form';
export { PLAIN_SURFACE, type Surface } from './geometry/surface';
export type { TexturePixels } from './pictures/texturePixels';
export { srgbOf } from './fields/srgb';
export { gradientTable, type Stop } from './geometry/gradient';
export { flaws } from './geometry/invariants';
export type { Mesh } from './geometry/mesh';
export { turnOf } from './curves/moveForm';
export { FAR, NEAR, pathCount, type Paths, pathsFrom } from './geometry/paths';
export { PROFILE_SHAPES, profileCurve, type ProfilePoint, type ProfileShape } from './geometry/profile';
export { SeatList } from './geometry/seats';
export type { Sheet, SheetColumn, SheetOf } from './geometry/sheets';
export type { Brush, BrushStroke, Stroke } from './geometry/maskStroke';
export { NO_TURN, turnedBack, turnedBy } from './geometry/turns';
export {
  add,
  type Anchor,
  at,
  byAxis,
  cross,
  distance,
  dot,
  partWay,
  scale,
  sub,
  unit,
  type Vec3,
} from './geometry/vec';

// Curves
export { catmullRom } from './curves/catmullRom';
export { cutPaths } from './curves/cut';
export { pathNormals, tangents } from './curves/frames';
export { helixPoints } from './curves/helix';
export { grownLength, withFrames } from './curves/pathFrames';
export { redrawPart } from './curves/redraw';
export { resample } from './curves/resample';
export { strokeToAnchors } from './curves/handStroke';

// Surfaces
export { sweepTubes } from './surfaces/sweep/sweepTubes';

// Time
export { type BezierEase, CSS_EASES, type Ease, EASE_NAMES, easeAt } from './time/easing';
export { formulaValue } from './time/formula';
export { type Cycle, CYCLES, type Track, valueAt, withKey, withKeysMoved, withKeysPut } from './time/track';

// Fields and randomness
export { type FalloffShape, rotationOf } from './fields/falloff';
export { noise3 } from './fields/noise';
export { random } from './fields/random';

// Sound
export { RealFft } from './sound/fft';
export { REEF_SOUND } from './sound/reefName';

// Checks
export { type Clash, clashesOf, fitOf, type FitPair } from './checks/fit';
export { paceOf } from './checks/pace';
export { CLOSED, measureSeam, type Seam, shortestLoop } from './checks/seam';
export { type Trail, trailOf, type TrailTarget } from './checks/trail';

// Keys
export { digest, formHash } from './digests/digest';

// What is told to people
export { Cancelled, Problem } from './problem';
