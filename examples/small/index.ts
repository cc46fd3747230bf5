// Written by scripts/smallPictures.ts.
import controlAlongLean from './control-along-lean.webp';
import controlAlongVary from './control-along-vary.webp';
import controlAlongWhorl from './control-along-whorl.webp';
import controlArcSweep from './control-arc-sweep.webp';
import controlBendOver from './control-bend-over.webp';
import controlBladeCup from './control-blade-cup.webp';
import controlBladeDroop from './control-blade-droop.webp';
import controlBladeFold from './control-blade-fold.webp';
import controlBurstCurve from './control-burst-curve.webp';
import controlBurstDroop from './control-burst-droop.webp';
import controlBurstSpread from './control-burst-spread.webp';
import controlCarryExponent from './control-carry-exponent.webp';
import controlCatenarySag from './control-catenary-sag.webp';
import controlDisplaceSize from './control-displace-size.webp';
import controlFalloffSoft from './control-falloff-soft.webp';
import controlFeelReach from './control-feel-reach.webp';
import controlFinishGlowLength from './control-finish-glowLength.webp';
import controlFoldSoft from './control-fold-soft.webp';
import controlFractalRound from './control-fractal-round.webp';
import controlFrontRough from './control-front-rough.webp';
import controlFrontSoft from './control-front-soft.webp';
import controlGrowFrom from './control-grow-from.webp';
import controlGrowLevels from './control-grow-levels.webp';
import controlGrowSoft from './control-grow-soft.webp';
import controlGrowStagger from './control-grow-stagger.webp';
import controlHelixAbove from './control-helix-above.webp';
import controlHelixTurns from './control-helix-turns.webp';
import controlNoiseEvolve from './control-noise-evolve.webp';
import controlNoiseHold from './control-noise-hold.webp';
import controlNoiseSize from './control-noise-size.webp';
import controlOnPointsLean from './control-on-points-lean.webp';
import controlOnPointsVary from './control-on-points-vary.webp';
import controlPhyllotaxisAngle from './control-phyllotaxis-angle.webp';
import controlRevealDissolve from './control-reveal-dissolve.webp';
import controlRevealWidth from './control-reveal-width.webp';
import controlRibbonRoll from './control-ribbon-roll.webp';
import controlRibbonTwist from './control-ribbon-twist.webp';
import controlRockBase from './control-rock-base.webp';
import controlRockEdges from './control-rock-edges.webp';
import controlRockLumps from './control-rock-lumps.webp';
import controlRulesAngle from './control-rules-angle.webp';
import controlRulesShorter from './control-rules-shorter.webp';
import controlScatterSink from './control-scatter-sink.webp';
import controlScatterSteepest from './control-scatter-steepest.webp';
import controlScatterUpright from './control-scatter-upright.webp';
import controlSettleHeight from './control-settle-height.webp';
import controlStrandsApart from './control-strands-apart.webp';
import controlStrandsLean from './control-strands-lean.webp';
import controlStretchAcross from './control-stretch-across.webp';
import controlSweepTwist from './control-sweep-twist.webp';
import controlTerrainRidges from './control-terrain-ridges.webp';
import controlTerrainRim from './control-terrain-rim.webp';
import controlTipsAhead from './control-tips-ahead.webp';
import controlTubeSwell from './control-tube-swell.webp';
import controlTwineClearance from './control-twine-clearance.webp';
import controlTwinePitch from './control-twine-pitch.webp';
import controlWanderRise from './control-wander-rise.webp';
import controlWanderTurning from './control-wander-turning.webp';
import controlWaveLength from './control-wave-length.webp';
import controlWaveSpeed from './control-wave-speed.webp';
import controlWebBow from './control-web-bow.webp';
import controlWebDrift from './control-web-drift.webp';
import cuttingAppear from './cutting-appear.webp';
import cuttingBarnacles from './cutting-barnacles.webp';
import cuttingBloomingHead from './cutting-blooming-head.webp';
import cuttingBubbles from './cutting-bubbles.webp';
import cuttingBuds from './cutting-buds.webp';
import cuttingBurningLine from './cutting-burning-line.webp';
import cuttingCappedFuse from './cutting-capped-fuse.webp';
import cuttingChain from './cutting-chain.webp';
import cuttingCoral from './cutting-coral.webp';
import cuttingCreature from './cutting-creature.webp';
import cuttingDancingBars from './cutting-dancing-bars.webp';
import cuttingDropIn from './cutting-drop-in.webp';
import cuttingEmber from './cutting-ember.webp';
import cuttingEndlessBlossom from './cutting-endless-blossom.webp';
import cuttingFallingPier from './cutting-falling-pier.webp';
import cuttingFallingPlanks from './cutting-falling-planks.webp';
import cuttingFoam from './cutting-foam.webp';
import cuttingGrowingText from './cutting-growing-text.webp';
import cuttingHangingChain from './cutting-hanging-chain.webp';
import cuttingHeadPetals from './cutting-head-petals.webp';
import cuttingHeadSpines from './cutting-head-spines.webp';
import cuttingLeafPairs from './cutting-leaf-pairs.webp';
import cuttingLeaves from './cutting-leaves.webp';
import cuttingLightTrails from './cutting-light-trails.webp';
import cuttingMeetingChains from './cutting-meeting-chains.webp';
import cuttingPetalWheel from './cutting-petal-wheel.webp';
import cuttingPicturedLeaves from './cutting-pictured-leaves.webp';
import cuttingPlant from './cutting-plant.webp';
import cuttingReefRock from './cutting-reef-rock.webp';
import cuttingRings from './cutting-rings.webp';
import cuttingRipple from './cutting-ripple.webp';
import cuttingRisingForest from './cutting-rising-forest.webp';
import cuttingShell from './cutting-shell.webp';
import cuttingSpines from './cutting-spines.webp';
import cuttingSwelling from './cutting-swelling.webp';
import cuttingTipBlossoms from './cutting-tip-blossoms.webp';
import cuttingTurnedVase from './cutting-turned-vase.webp';
import cuttingTurningLetters from './cutting-turning-letters.webp';
import cuttingTwining from './cutting-twining.webp';
import cuttingUnrollingStem from './cutting-unrolling-stem.webp';
import cuttingVeins from './cutting-veins.webp';
import cuttingVertebrae from './cutting-vertebrae.webp';
import cuttingWeeds from './cutting-weeds.webp';
import cuttingWireCells from './cutting-wire-cells.webp';
import cuttingWireThenSolid from './cutting-wire-then-solid.webp';
import startArc from './start-arc.webp';
import startBlade from './start-blade.webp';
import startBurst from './start-burst.webp';
import startCatenary from './start-catenary.webp';
import startCells from './start-cells.webp';
import startColonise from './start-colonise.webp';
import startContours from './start-contours.webp';
import startDrawn from './start-drawn.webp';
import startEdgePaths from './start-edge-paths.webp';
import startEdges from './start-edges.webp';
import startForm from './start-form.webp';
import startFractal from './start-fractal.webp';
import startFrill from './start-frill.webp';
import startHelix from './start-helix.webp';
import startLine from './start-line.webp';
import startPhyllotaxis from './start-phyllotaxis.webp';
import startPlacedPoints from './start-placed-points.webp';
import startRock from './start-rock.webp';
import startRuffle from './start-ruffle.webp';
import startRules from './start-rules.webp';
import startShared from './start-shared.webp';
import startSkinOf from './start-skin-of.webp';
import startSolid from './start-solid.webp';
import startTableLines from './start-table-lines.webp';
import startTerrain from './start-terrain.webp';
import startText from './start-text.webp';
import startTrail from './start-trail.webp';
import startTwine from './start-twine.webp';
import startVolume from './start-volume.webp';
import startWander from './start-wander.webp';
import startWeb from './start-web.webp';
import stepAlong from './step-along.webp';
import stepArray from './step-array.webp';
import stepBend from './step-bend.webp';
import stepBlend from './step-blend.webp';
import stepCarry from './step-carry.webp';
import stepClearance from './step-clearance.webp';
import stepCup from './step-cup.webp';
import stepDisplace from './step-displace.webp';
import stepFalloff from './step-falloff.webp';
import stepFeel from './step-feel.webp';
import stepFinish from './step-finish.webp';
import stepFold from './step-fold.webp';
import stepFollowPath from './step-follow-path.webp';
import stepFront from './step-front.webp';
import stepGrow from './step-grow.webp';
import stepLathe from './step-lathe.webp';
import stepLoft from './step-loft.webp';
import stepMask from './step-mask.webp';
import stepMeasure from './step-measure.webp';
import stepMirror from './step-mirror.webp';
import stepNoise from './step-noise.webp';
import stepOffset from './step-offset.webp';
import stepOnPoints from './step-on-points.webp';
import stepPictureValues from './step-picture-values.webp';
import stepPlate from './step-plate.webp';
import stepPrune from './step-prune.webp';
import stepRespace from './step-respace.webp';
import stepReveal from './step-reveal.webp';
import stepRibbon from './step-ribbon.webp';
import stepRide from './step-ride.webp';
import stepRollUp from './step-roll-up.webp';
import stepScatter from './step-scatter.webp';
import stepSettle from './step-settle.webp';
import stepSkinPicture from './step-skin-picture.webp';
import stepSmooth from './step-smooth.webp';
import stepSoftNormals from './step-soft-normals.webp';
import stepStrands from './step-strands.webp';
import stepStretch from './step-stretch.webp';
import stepSubdivide from './step-subdivide.webp';
import stepSweep from './step-sweep.webp';
import stepTableValues from './step-table-values.webp';
import stepTaper from './step-taper.webp';
import stepThicken from './step-thicken.webp';
import stepThin from './step-thin.webp';
import stepTips from './step-tips.webp';
import stepTransform from './step-transform.webp';
import stepTube from './step-tube.webp';
import stepTwist from './step-twist.webp';
import stepWave from './step-wave.webp';
import stepWire from './step-wire.webp';

/** Moments of each, side by side. */
export const MOMENTS = 8;

/** Small moving pictures of starts, steps, controls and cuttings, by what they are of. */
export const SMALL: Readonly<Record<string, string>> = {
  'control-along-lean': controlAlongLean.src,
  'control-along-vary': controlAlongVary.src,
  'control-along-whorl': controlAlongWhorl.src,
  'control-arc-sweep': controlArcSweep.src,
  'control-bend-over': controlBendOver.src,
  'control-blade-cup': controlBladeCup.src,
  'control-blade-droop': controlBladeDroop.src,
  'control-blade-fold': controlBladeFold.src,
  'control-burst-curve': controlBurstCurve.src,
  'control-burst-droop': controlBurstDroop.src,
  'control-burst-spread': controlBurstSpread.src,
  'control-carry-exponent': controlCarryExponent.src,
  'control-catenary-sag': controlCatenarySag.src,
  'control-displace-size': controlDisplaceSize.src,
  'control-falloff-soft': controlFalloffSoft.src,
  'control-feel-reach': controlFeelReach.src,
  'control-finish-glowLength': controlFinishGlowLength.src,
  'control-fold-soft': controlFoldSoft.src,
  'control-fractal-round': controlFractalRound.src,
  'control-front-rough': controlFrontRough.src,
  'control-front-soft': controlFrontSoft.src,
  'control-grow-from': controlGrowFrom.src,
  'control-grow-levels': controlGrowLevels.src,
  'control-grow-soft': controlGrowSoft.src,
  'control-grow-stagger': controlGrowStagger.src,
  'control-helix-above': controlHelixAbove.src,
  'control-helix-turns': controlHelixTurns.src,
  'control-noise-evolve': controlNoiseEvolve.src,
  'control-noise-hold': controlNoiseHold.src,
  'control-noise-size': controlNoiseSize.src,
  'control-on-points-lean': controlOnPointsLean.src,
  'control-on-points-vary': controlOnPointsVary.src,
  'control-phyllotaxis-angle': controlPhyllotaxisAngle.src,
  'control-reveal-dissolve': controlRevealDissolve.src,
  'control-reveal-width': controlRevealWidth.src,
  'control-ribbon-roll': controlRibbonRoll.src,
  'control-ribbon-twist': controlRibbonTwist.src,
  'control-rock-base': controlRockBase.src,
  'control-rock-edges': controlRockEdges.src,
  'control-rock-lumps': controlRockLumps.src,
  'control-rules-angle': controlRulesAngle.src,
  'control-rules-shorter': controlRulesShorter.src,
  'control-scatter-sink': controlScatterSink.src,
  'control-scatter-steepest': controlScatterSteepest.src,
  'control-scatter-upright': controlScatterUpright.src,
  'control-settle-height': controlSettleHeight.src,
  'control-strands-apart': controlStrandsApart.src,
  'control-strands-lean': controlStrandsLean.src,
  'control-stretch-across': controlStretchAcross.src,
  'control-sweep-twist': controlSweepTwist.src,
  'control-terrain-ridges': controlTerrainRidges.src,
  'control-terrain-rim': controlTerrainRim.src,
  'control-tips-ahead': controlTipsAhead.src,
  'control-tube-swell': controlTubeSwell.src,
  'control-twine-clearance': controlTwineClearance.src,
  'control-twine-pitch': controlTwinePitch.src,
  'control-wander-rise': controlWanderRise.src,
  'control-wander-turning': controlWanderTurning.src,
  'control-wave-length': controlWaveLength.src,
  'control-wave-speed': controlWaveSpeed.src,
  'control-web-bow': controlWebBow.src,
  'control-web-drift': controlWebDrift.src,
  'cutting-appear': cuttingAppear.src,
  'cutting-barnacles': cuttingBarnacles.src,
  'cutting-blooming-head': cuttingBloomingHead.src,
  'cutting-bubbles': cuttingBubbles.src,
  'cutting-buds': cuttingBuds.src,
  'cutting-burning-line': cuttingBurningLine.src,
  'cutting-capped-fuse': cuttingCappedFuse.src,
  'cutting-chain': cuttingChain.src,
  'cutting-coral': cuttingCoral.src,
  'cutting-creature': cuttingCreature.src,
  'cutting-dancing-bars': cuttingDancingBars.src,
  'cutting-drop-in': cuttingDropIn.src,
  'cutting-ember': cuttingEmber.src,
  'cutting-endless-blossom': cuttingEndlessBlossom.src,
  'cutting-falling-pier': cuttingFallingPier.src,
  'cutting-falling-planks': cuttingFallingPlanks.src,
  'cutting-foam': cuttingFoam.src,
  'cutting-growing-text': cuttingGrowingText.src,
  'cutting-hanging-chain': cuttingHangingChain.src,
  'cutting-head-petals': cuttingHeadPetals.src,
  'cutting-head-spines': cuttingHeadSpines.src,
  'cutting-leaf-pairs': cuttingLeafPairs.src,
  'cutting-leaves': cuttingLeaves.src,
  'cutting-light-trails': cuttingLightTrails.src,
  'cutting-meeting-chains': cuttingMeetingChains.src,
  'cutting-petal-wheel': cuttingPetalWheel.src,
  'cutting-pictured-leaves': cuttingPicturedLeaves.src,
  'cutting-plant': cuttingPlant.src,
  'cutting-reef-rock': cuttingReefRock.src,
  'cutting-rings': cuttingRings.src,
  'cutting-ripple': cuttingRipple.src,
  'cutting-rising-forest': cuttingRisingForest.src,
  'cutting-shell': cuttingShell.src,
  'cutting-spines': cuttingSpines.src,
  'cutting-swelling': cuttingSwelling.src,
  'cutting-tip-blossoms': cuttingTipBlossoms.src,
  'cutting-turned-vase': cuttingTurnedVase.src,
  'cutting-turning-letters': cuttingTurningLetters.src,
  'cutting-twining': cuttingTwining.src,
  'cutting-unrolling-stem': cuttingUnrollingStem.src,
  'cutting-veins': cuttingVeins.src,
  'cutting-vertebrae': cuttingVertebrae.src,
  'cutting-weeds': cuttingWeeds.src,
  'cutting-wire-cells': cuttingWireCells.src,
  'cutting-wire-then-solid': cuttingWireThenSolid.src,
  'start-arc': startArc.src,
  'start-blade': startBlade.src,
  'start-burst': startBurst.src,
  'start-catenary': startCatenary.src,
  'start-cells': startCells.src,
  'start-colonise': startColonise.src,
  'start-contours': startContours.src,
  'start-drawn': startDrawn.src,
  'start-edge-paths': startEdgePaths.src,
  'start-edges': startEdges.src,
  'start-form': startForm.src,
  'start-fractal': startFractal.src,
  'start-frill': startFrill.src,
  'start-helix': startHelix.src,
  'start-line': startLine.src,
  'start-phyllotaxis': startPhyllotaxis.src,
  'start-placed-points': startPlacedPoints.src,
  'start-rock': startRock.src,
  'start-ruffle': startRuffle.src,
  'start-rules': startRules.src,
  'start-shared': startShared.src,
  'start-skin-of': startSkinOf.src,
  'start-solid': startSolid.src,
  'start-table-lines': startTableLines.src,
  'start-terrain': startTerrain.src,
  'start-text': startText.src,
  'start-trail': startTrail.src,
  'start-twine': startTwine.src,
  'start-volume': startVolume.src,
  'start-wander': startWander.src,
  'start-web': startWeb.src,
  'step-along': stepAlong.src,
  'step-array': stepArray.src,
  'step-bend': stepBend.src,
  'step-blend': stepBlend.src,
  'step-carry': stepCarry.src,
  'step-clearance': stepClearance.src,
  'step-cup': stepCup.src,
  'step-displace': stepDisplace.src,
  'step-falloff': stepFalloff.src,
  'step-feel': stepFeel.src,
  'step-finish': stepFinish.src,
  'step-fold': stepFold.src,
  'step-follow-path': stepFollowPath.src,
  'step-front': stepFront.src,
  'step-grow': stepGrow.src,
  'step-lathe': stepLathe.src,
  'step-loft': stepLoft.src,
  'step-mask': stepMask.src,
  'step-measure': stepMeasure.src,
  'step-mirror': stepMirror.src,
  'step-noise': stepNoise.src,
  'step-offset': stepOffset.src,
  'step-on-points': stepOnPoints.src,
  'step-picture-values': stepPictureValues.src,
  'step-plate': stepPlate.src,
  'step-prune': stepPrune.src,
  'step-respace': stepRespace.src,
  'step-reveal': stepReveal.src,
  'step-ribbon': stepRibbon.src,
  'step-ride': stepRide.src,
  'step-roll-up': stepRollUp.src,
  'step-scatter': stepScatter.src,
  'step-settle': stepSettle.src,
  'step-skin-picture': stepSkinPicture.src,
  'step-smooth': stepSmooth.src,
  'step-soft-normals': stepSoftNormals.src,
  'step-strands': stepStrands.src,
  'step-stretch': stepStretch.src,
  'step-subdivide': stepSubdivide.src,
  'step-sweep': stepSweep.src,
  'step-table-values': stepTableValues.src,
  'step-taper': stepTaper.src,
  'step-thicken': stepThicken.src,
  'step-thin': stepThin.src,
  'step-tips': stepTips.src,
  'step-transform': stepTransform.src,
  'step-tube': stepTube.src,
  'step-twist': stepTwist.src,
  'step-wave': stepWave.src,
  'step-wire': stepWire.src,
};
