export * from './chart/chart.ts';
export * from './chart/own-chart.ts';
export { type Check, checksOf } from './checks/checks.ts';
export { hexOfLinear, linearOfHex } from './colour/hex.ts';
export * from './colour/luminance-of.ts';
export * from './colour/oklab.ts';
export * from './colour/srgb.ts';
export * from './engine/engine.ts';
export * from './engine/evaluation.ts';
export { resultKey } from './engine/keys.ts';
export { answered } from './engine/tasks.ts';
export { FAR_FILTERS, type FarFilter, type FarLook, farField } from './far/field.ts';
export { mipChain } from './far/mips.ts';
export * from './fft/fft.ts';
export { atrousBands } from './filters/atrous.ts';
export { gaussian } from './filters/gaussian.ts';
export { contentKey } from './hashing/content-key.ts';
export { keyOf } from './hashing/key-of.ts';
export { stableJson } from './hashing/stable-json.ts';
export { KERNELS } from './kernels/kernels.ts';
export { type DistantDisc, withDiscs } from './lit/around/discs.ts';
export { evenPoint } from './lit/around/even.ts';
export { irradianceAt, irradianceHarmonics } from './lit/around/harmonics.ts';
export { BLURRED_AT, BLURRED_WIDTH, blurredPanorama } from './lit/around/mirrored.ts';
export { halvedPanorama, type Panorama, panoramaOf } from './lit/around/panorama.ts';
export { AROUND_NAMES, type AroundName, type PlaceSun, placeUnder } from './lit/around/places.ts';
export { type SkyLight, skyLights } from './lit/around/sky-lights.ts';
export { litBall } from './lit/ball.ts';
export type { Triple } from './lit/shade.ts';
export { encodedPlanes, type Samples } from './maps/encoded-planes.ts';
export * from './maps/map-raster.ts';
export * from './maps/maps.ts';
export { smallerMap } from './maps/smaller.ts';
export { coverShare, maskCover } from './masks/cover.ts';
export {
  MASK_MAPS,
  MASK_PARTS,
  MASK_SETTINGS,
  type Mask,
  type MaskMap,
  type MaskPart,
  type MaskPartKind,
  type MaskStroke,
  MIRRORS,
  type Mirror,
  mirrorImages,
} from './masks/mask.ts';
export { masks as MASKS } from './masks/masks-setting.ts';
export { wetReflectance } from './masks/wet.ts';
export { PLANES } from './memory/pool.ts';
export { snappedNoise } from './noise/noise.ts';
export { boundaryLoops, islandsOf, type Loop } from './outline/boundary.ts';
export { turnedImages } from './paint/images.ts';
export { nearestOn, patchesOf, type ShapePoint, type ShapeTriangle, upOn } from './paint/on-shape.ts';
export { levelFor, type PictureStamp, pictureStamp, stampAt } from './paint/picture-stamp.ts';
export { type Print, printsOf } from './paint/prints.ts';
export { type Paint, type PaintStroke, type Prints, TURNINGS } from './paint/stroke.ts';
export { patternRows } from './pattern/pattern.ts';
export { codesRaster } from './pixels/codes-raster.ts';
export type { Pixels, SourceRef } from './pixels/pixels.ts';
export { reducePixels } from './pixels/reduce.ts';
export { reductionFor } from './pixels/reduction.ts';
export * from './planes/luminance.ts';
export { type LuminanceBins, luminanceBins } from './planes/luminance-bins.ts';
export { Problem } from './problem.ts';
export * from './raster/edges.ts';
export { GRADIENT_KERNELS, type GradientKernel } from './raster/gradient.ts';
export { Raster } from './raster/raster.ts';
export { roll, rollPlane } from './raster/roll.ts';
export type { Sides } from './raster/sides.ts';
export { assignSetting } from './recipe/assign.ts';
export * from './recipe/changes.ts';
export { withCoatsAdded } from './recipe/coats.ts';
export { RECIPE_VERSION } from './recipe/migrate.ts';
export { picturesOf } from './recipe/pictures.ts';
export * from './recipe/recipe.ts';
export * from './recipe/saved.ts';
export * from './recipe/sections.ts';
export type { Sheet } from './recipe/sheet-ref.ts';
export { attachSheets, detachSheets, type StoredRecipe, sheetsIn } from './recipe/sheets.ts';
export { whyUnsolved, withShots } from './recipe/shots.ts';
export { isTileAlready } from './recipe/tile-already.ts';
export * from './sampling/resize.ts';
export { sampleBilinear } from './sampling/sample.ts';
export * from './settings/kinds.ts';
export { valueWords } from './settings/words.ts';
export {
  isApplied,
  type ProposedSetting,
  proposalSchema,
  type SetupProposal,
  withProposed,
} from './setup/proposal.ts';
export { type Setup, setUp } from './setup/setup.ts';
export { UNCHANGED } from './setup/unchanged.ts';
export { REACH as STAMP_REACH, stampCover } from './stamps/stamp-table.ts';
export { STAMP_NAMES, STAMPS, type StampName } from './stamps/stamps.ts';
export { BLEND_MODES, type BlendName } from './stations/coats/blend/modes.ts';
export { type AskedCoat, COAT_ALONE, type CoatAlone } from './stations/coats/inquiries.ts';
export { CHANNELS, type Channel as CoatChannel } from './stations/coats/layers.ts';
export { newCoat, newOutput, newPart } from './stations/coats/making.ts';
export { MOST_LOOP_NUMBERS } from './stations/coats/mask/own-shape.ts';
export { PART_KINDS, type Part as CoatPart, type PartName } from './stations/coats/mask/parts.ts';
export { coloursOfCoat, recoloured } from './stations/coats/recolour.ts';
export {
  COAT_GROUP_SETTINGS,
  COAT_OUTPUTS,
  COAT_PARTS,
  COAT_SETTINGS,
  type Coat,
  type CoatGroup,
  type CoatOutput,
} from './stations/coats/settings.ts';
export { changes as coatsChange, coatsInUse } from './stations/coats/stack.ts';
export { type RampStop, rampColours } from './stations/coats/value/ramp.ts';
export { type OtherTile, tileRepeats } from './stations/coats/value/tile.ts';
export { VALUE_KINDS, type ValueName } from './stations/coats/value/values.ts';
export {
  hasField,
  NAME_FIELDS,
  patternProblems,
  safeName,
  suffixProblem,
} from './stations/crate/names.ts';
export type { CrateFile, CrateOutput } from './stations/crate/output.ts';
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
  profileProblems,
} from './stations/crate/profile.ts';
export * from './stations/crate/profiles.ts';
export { type CrateText, TEXT_ENDING } from './stations/crate/settings.ts';
export { mipSides } from './stations/crate/station.ts';
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
export type { EvenOutput } from './stations/even/output.ts';
export { type Curve, curveAt, curveSchema, curveTable, STRAIGHT } from './stations/finish/curve.ts';
export type { FinishOutput } from './stations/finish/output.ts';
export type { ZoneFinish } from './stations/finish/settings.ts';
export { roughnessBand } from './stations/finish/station.ts';
export type { GaugeDecision } from './stations/gauge/decision.ts';
export { gaugeMarks, isBeyond, MARK } from './stations/gauge/marks.ts';
export type { GaugeOutput } from './stations/gauge/output.ts';
export type { Patch } from './stations/gauge/patches.ts';
export { MOST_READINGS, meanAt, type Reading } from './stations/gauge/readings.ts';
export type { ZoneTone } from './stations/gauge/settings.ts';
export { bandAt } from './stations/gauge/station.ts';
export * from './stations/index.ts';
export type { JoinDecision } from './stations/join/decision.ts';
export { GRAFT_OFFERS, JOIN_PROPOSALS } from './stations/join/inquiries.ts';
export { type CutLine, type JoinLines, joinLines } from './stations/join/lines.ts';
export type { JoinOutput } from './stations/join/output.ts';
export { type Proposal, type Proposed, WAYS } from './stations/join/propose.ts';
export type { GraftOffer, RepairSpot } from './stations/join/repair/offers.ts';
export type { BrushRepair, Calm, Graft, Repair } from './stations/join/repair/repair.ts';
export { repairPlace, repairWords } from './stations/join/repair/repair.ts';
export type { Spot } from './stations/join/score/patches.ts';
export { type SeamScore, seamScore } from './stations/join/score/score.ts';
export { pictureSeams, type SeamFigures, seamFigures } from './stations/join/seam.ts';
export { joins } from './stations/join/vectors.ts';
export { type Agreement, agreementOf } from './stations/proof/agreement.ts';
export type { ProofOutput } from './stations/proof/output.ts';
export { findRepeats, PLAIN as PLAIN_REPEAT, type Repeat, repeatFigure } from './stations/proof/repeats.ts';
export { contrastSensitivity, leastVisible } from './stations/proof/visibility.ts';
export { bandMillimetres } from './stations/relief/bands.ts';
export { type ReliefDecision, reliefDepth } from './stations/relief/decision.ts';
export { NET } from './stations/relief/inquiries.ts';
export { firstJoints } from './stations/relief/joints/first.ts';
export type { FoundNet } from './stations/relief/joints/net.ts';
export { normalMap } from './stations/relief/normal-map.ts';
export { visibility } from './stations/relief/occlusion.ts';
export type { ReliefOutput } from './stations/relief/output.ts';
export { BAND_VIEWS } from './stations/relief/views.ts';
export { contentOf, type PictureContent } from './stations/source/content.ts';
export { roleOfContents } from './stations/source/contents.ts';
export { type GreenFound, greenOf } from './stations/source/green.ts';
export { linearise, READS_AS, type ReadsAs } from './stations/source/linearise.ts';
export type { SourceInput, SourceOutput } from './stations/source/output.ts';
export * from './stations/source/roles.ts';
export type { Ball } from './stations/source/shots/ball.ts';
export type { ShotsDecision } from './stations/source/shots/decision.ts';
export { directionOf, type LightDirection } from './stations/source/shots/light.ts';
export { LIGHTS_FROM, type LightsFrom, MOST_SHOTS } from './stations/source/shots/settings.ts';
export { type MainDirection, mainDirection } from './stations/square/direction.ts';
export { cropMapper, isFrame } from './stations/square/geometry.ts';
export { CROP_OFFERS } from './stations/square/inquiries.ts';
export {
  type BendMesh,
  FEWEST_HANDLES,
  flatMesh,
  isFolded,
  MOST_HANDLES,
  meshWith,
} from './stations/square/mesh.ts';
export * from './stations/square/needed.ts';
export { neededShortEdge } from './stations/square/needed.ts';
export type { CropOffer, Framing } from './stations/square/offers/offer.ts';
export type { Margins, SquareOutput } from './stations/square/output.ts';
export type { Corners } from './stations/square/points.ts';
export { SIZES } from './stations/square/sizes.ts';
export type { StyleDecision } from './stations/style/decision.ts';
export { paints } from './stations/style/settings.ts';
export { STYLE_STARTS, type StyleStart } from './stations/style/starts.ts';
export type { View as AnyView, ViewKind } from './stations/view.ts';
export * from './statistics/histogram.ts';
export * from './statistics/statistics.ts';
export { coverOf } from './strokes/cover.ts';
export { radiusShare } from './strokes/pressure.ts';
export { type Steadying, steadier } from './strokes/steady.ts';
export { type Stroke, thinned } from './strokes/stroke.ts';
export { excessShare, metallicOf, toMetallic, USUAL_F0 } from './surface/convert.ts';
export { albedoOf, dielectricOf, metallicChannel } from './surface/metalness.ts';
export * from './surface/surface.ts';
export { PLAIN_CONTEXT, Stopped, type WorkContext } from './team/context.ts';
export { Crew, type Helper } from './team/crew.ts';
export { type Answer, type Asked, READY } from './team/helper.ts';
export { ALONE, type Team } from './team/team.ts';
export type { Frame } from './tile/frame.ts';
export {
  GIVEN_MAPS,
  type GivenMap,
  type GivenRefs,
  isOnePlane,
  isSameShape,
  type PictureRef,
} from './tile/given.ts';
export * from './tile/shape.ts';
export * from './verdict.ts';
export { runSteps, runToEnd, type Steps } from './work/steps.ts';
