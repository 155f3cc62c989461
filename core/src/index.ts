export * from './chart/chart.ts';
export * from './chart/own-chart.ts';
export { hexOfLinear, linearOfHex } from './colour/hex.ts';
export * from './colour/luminance.ts';
export { type LuminanceBins, luminanceBins } from './colour/luminance-bins.ts';
export * from './colour/luminance-of.ts';
export * from './colour/oklab.ts';
export * from './colour/srgb.ts';
export { assignSetting } from './engine/assign.ts';
export * from './engine/changes.ts';
export { PLAIN_CONTEXT, Stopped, type WorkContext } from './engine/context.ts';
export * from './engine/engine.ts';
export * from './engine/evaluation.ts';
export { contentKey, stableJson } from './engine/hash.ts';
export * from './engine/manifest.ts';
export * from './engine/needed.ts';
export { picturesOf } from './engine/pictures.ts';
export * from './engine/recipe.ts';
export * from './engine/saved-recipe.ts';
export { FAR_FILTERS, type FarFilter, type FarLook, farField } from './far/field.ts';
export { mipChain } from './far/mips.ts';
export { atrousBands } from './filters/atrous.ts';
export { gaussian } from './filters/gaussian.ts';
export { GRADIENT_KERNELS, type GradientKernel } from './filters/gradient.ts';
export { KERNELS } from './kernels/kernels.ts';
export { litBall } from './lit/ball.ts';
export type { Pixels, SourceRef } from './pixels.ts';
export { Problem } from './problem.ts';
export * from './raster/edges.ts';
export * from './raster/fft.ts';
export * from './raster/histogram.ts';
export { atOnce, inTurns, type Pausing } from './raster/pausing.ts';
export { PLANES } from './raster/pool.ts';
export { Raster } from './raster/raster.ts';
export * from './raster/resize.ts';
export { roll, rollPlane } from './raster/roll.ts';
export { sampleBilinear } from './raster/sample.ts';
export * from './raster/statistics.ts';
export { reducePixels } from './reduce.ts';
export * from './settings/settings.ts';
export * from './stations/crate/maps.ts';
export {
  hasField,
  NAME_FIELDS,
  patternProblems,
  safeName,
  suffixProblem,
} from './stations/crate/names.ts';
export { greenOfFile, isEncoded, packer, samplesOf } from './stations/crate/pack.ts';
export {
  type CrateNaming,
  type CratePlan,
  type CrateSettings,
  manifestNames,
  type PlannedPicture,
  planCrate,
  profileOf,
} from './stations/crate/plan.ts';
export {
  type Channel,
  DOCUMENTS,
  FORMAT_BITS,
  FORMATS,
  type Format,
  holds,
  holdsWhole,
  type Profile,
  type ProfileFile,
  planesOf,
  profileProblems,
} from './stations/crate/profile.ts';
export * from './stations/crate/profiles.ts';
export { encodedPlanes, type Samples } from './stations/crate/quantise.ts';
export { type CrateText, TEXT_ENDING } from './stations/crate/settings.ts';
export { smallerMap } from './stations/crate/smaller.ts';
export { type CrateFile, type CrateOutput, mipSides } from './stations/crate/station.ts';
export {
  filledText,
  TEXT_FIELDS,
  type TextFields,
  type TextFile,
  templateNestingProblem,
  templateProblems,
} from './stations/crate/template.ts';
export { drift } from './stations/even/drift.ts';
export type { LeaveStroke } from './stations/even/leave.ts';
export { excessShare, metallicOf, toMetallic, USUAL_F0 } from './stations/finish/convert.ts';
export { type Curve, curveAt, curveSchema, curveTable, STRAIGHT } from './stations/finish/curve.ts';
export type { ZoneFinish } from './stations/finish/settings.ts';
export { roughnessBand } from './stations/finish/station.ts';
export { gaugeMarks, isBeyond, MARK } from './stations/gauge/marks.ts';
export type { Patch } from './stations/gauge/patches.ts';
export { MOST_READINGS, meanAt, type Reading } from './stations/gauge/readings.ts';
export type { ZoneTone } from './stations/gauge/settings.ts';
export { bandAt, type GaugeDecision } from './stations/gauge/station.ts';
export { GIVEN_MAPS, type GivenMap, type GivenRefs, isSameShape, type PictureRef } from './stations/given.ts';
export * from './stations/index.ts';
export type { JoinDecision } from './stations/join/decision.ts';
export { type CutLine, type JoinLines, joinLines } from './stations/join/lines.ts';
export { type Proposal, type Proposed, WAYS } from './stations/join/propose.ts';
export type { GraftOffer, RepairSpot } from './stations/join/repair/offers.ts';
export type { BrushRepair, Calm, Graft, Repair } from './stations/join/repair/repair.ts';
export { repairPlace, repairWords } from './stations/join/repair/repair.ts';
export type { Spot } from './stations/join/score/patches.ts';
export { type SeamScore, seamScore } from './stations/join/score/score.ts';
export { pictureSeams, type SeamFigures, seamFigures } from './stations/join/seam.ts';
export { joins } from './stations/join/vectors.ts';
export { type Agreement, agreementOf } from './stations/proof/agreement.ts';
export { type Check, checksOf } from './stations/proof/checks.ts';
export { findRepeats, type Repeat, repeatFigure } from './stations/proof/repeats.ts';
export { bandMillimetres } from './stations/relief/bands.ts';
export type { ReliefDecision } from './stations/relief/decision.ts';
export { normalMap } from './stations/relief/normal-map.ts';
export { visibility } from './stations/relief/occlusion.ts';
export * from './stations/shape.ts';
export { type GreenFound, greenOf } from './stations/source/green.ts';
export { codesRaster, linearise, READS_AS, type ReadsAs } from './stations/source/linearise.ts';
export * from './stations/source/roles.ts';
export { type MainDirection, mainDirection } from './stations/square/direction.ts';
export { type Corners, cropMapper, isFrame } from './stations/square/geometry.ts';
export {
  type BendMesh,
  FEWEST_HANDLES,
  flatMesh,
  isFolded,
  MOST_HANDLES,
  meshWith,
} from './stations/square/mesh.ts';
export type { CropOffer, Framing } from './stations/square/offers/offer.ts';
export { SIZES } from './stations/square/station.ts';
export * from './stations/types.ts';
export { coverOf } from './strokes/cover.ts';
export type { Stroke } from './strokes/stroke.ts';
export { Crew, type Helper } from './team/crew.ts';
export { type Answer, type Asked, answered, READY } from './team/helper.ts';
export { ALONE, type Team } from './team/team.ts';
export * from './verdict.ts';
export { coverShare, zoneCover } from './zones/cover.ts';
export { wetReflectance } from './zones/wet.ts';
export {
  withoutStrokes,
  ZONE_MAPS,
  type Zone,
  type ZoneMap,
  type ZonePart,
  zonesSchema,
} from './zones/zone.ts';
