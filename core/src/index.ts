/** The core's front door: what the web application, the server and the command line use. */
export * from './records.js';
export * from './plane/point.js';
export { place, type Placement } from './plane/placement.js';
export * from './plane/outline.js';
export { plainRectangle } from './plane/plain-rectangle.js';
export * from './plane/triangles.js';
export { SHAPE_OPTIONS } from './plane/shapes.js';
export { partOf, readsOffRuler, type CutSheet, type Score } from './sheet/cut-sheet.js';
export { shiftOnSheet } from './sheet/on-sheet.js';
export type { Face } from './sheet/piece.js';
export { pieceDrawing, type DrawingRole, type Primitive } from './sheet/piece-drawing.js';
export type { Panel, PanelHinge } from './sheet/panels.js';
export type { Crease, Fold, Piece, StandsFor, Zone } from './sheet/piece.js';
export { stackOpen, type ClosedStack } from './linkage/stacking.js';
export { frameAt, frameBetween, poseOf, type Frame, type Motion } from './linkage/motion.js';
export type { Pose } from './linkage/kinematics.js';
export { carry, carryDirection, inverse, rigidIdentity, type Rigid, type Vec3 } from './linkage/rigid.js';
export { CATALOGUE, mechanismById } from './mechanism/catalogue.js';
export type { AlternativeSize, Base, FreeSize, Measure, Mechanism, Movement, Tracked, UsedUp } from './mechanism/contract.js';
export {
  fillSizes,
  itemSizeName,
  itemSizeOf,
  items,
  type ListSize,
  type PlainSize,
  type SizeContext,
  type SizeItem,
  type Sizes,
  type SizeValue,
} from './mechanism/sizes.js';
export * from './card/parts.js';
export * from './card/choose-supplies.js';
export { cardToTry, PLAIN_CARD, sizesForClosed } from './card/try-out.js';
export { inSentence, titlesOf } from './card/part-titles.js';
export type { FoldSite, Site, SiteLeaf } from './mechanism/sites.js';
export * from './supplies/supply-fields.js';
export { applyFix } from './trial/apply-fix.js';
export { begunOnBoard, withOffers } from './trial/offers.js';
export { repair, type Repair, type RepairOffer } from './trial/repair.js';
export type { SizeChange } from './trial/size-search.js';
export type { Wish } from './trial/wishes.js';
export { couldBe, reconcile, type Contradiction, type Correction, type Reconciled } from './trial/reconcile.js';
export { entriesOf, readSaidList, saidOf, wordsOfStrange, type SaidNumber } from './trial/said-list.js';
export { resized, type Resized, type Wanted } from './trial/resize.js';
export { rescue, type Rescue } from './trial/rescue.js';
export { isJointOff, isLineOff, isStretchOff, type Made, type Off } from './trial/made.js';
export type { RescueWay } from './trial/rescue-way.js';
export { sampled, toleranceModel, toleranceStudy, type ToleranceModel, type ToleranceStudy } from './trial/tolerance.js';
export { layersAt } from './card/pile.js';
export { caliperOf, stockOf } from './card/card-stocks.js';
export { bentRows, nodesBetween, type BentRow } from './card/bent-rows.js';
export { bendSentences, readBend, type BendReading, type StockBend } from './card/bend-told.js';
export { whatShows, type WhatShows } from './card/what-shows.js';
export type { SeenFace } from './card/visibility.js';
export { thicknessMap, type ThicknessMap } from './card/thickness-map.js';
export { claimsOf, draw, partsOf, type CardProblem, type Drawing, type DrawnPart } from './card/draw.js';
export type { Design } from './card/join.js';
export { KeptGeometry } from './card/kept-geometry.js';
export * from './card/allowed.js';
export * from './card/set-size.js';
export * from './card/size-rows.js';
export type { Finding, Fix, Severity } from './check/finding.js';
export { MEETS_WITHIN } from './check/meets.js';
export { CLOSING_PLAY } from './supplies/limits.js';
export { report, type Report } from './format/report.js';
export { writeSvg } from './format/svg.js';
export { standingPicture, type StandingPicture } from './format/standing-picture.js';
export { cardPictures, picturesOf, samplePictures, type CardPictures } from './format/card-pictures.js';
export { foldFile, writeFold, type FoldFile, type FoldFrame } from './format/fold.js';
export { readOutlineSvg, type OutlineReading, type OwnOutline } from './format/outline-svg.js';
export * from './evaluate.js';
export { writeCsv, type CsvDialect } from './format/csv.js';
export type { CutterOptions } from './format/lines.js';
export { halfTemplate } from './sheet/half-template.js';
export { envelopeSheets, everySheet } from './dress/every-sheet.js';
export { benchSteps } from './plan/bench-steps.js';
export { besideWords } from './plan/beside-words.js';
export {
  cuttingPlan,
  GAP as CUTTING_GAP,
  type CuttingPlan,
  type CuttingTool,
  type Leftover,
  type PlanAsked,
  type PlannedPiece,
  type PlannedSheet,
  type SheetAtHand,
} from './plan/cutting-plan.js';
export { leftWords } from './plan/left-words.js';
export { movedByHand, type MovedSheet, type PutAt } from './plan/moved-by-hand.js';
export { verdictLine, type VerdictLine } from './plan/verdict.js';
export { drawingsOf, type Drawing as CutterDrawing } from './format/layout.js';
export { type BenchStep, type StepKind, type StepPicture } from './plan/step.js';
export { ACCURACY_BY, accuracyBy, type Accuracy, type AccuracyBy } from './logbook/accuracy.js';
export { accepted, evidenceOf, takenBack, type Evidence } from './logbook/calibration.js';
export { plannedMeasures, type PlannedMeasure } from './logbook/planned-measures.js';
export type { Join } from './plan/joins-said.js';
export { EXERCISES, exerciseOf, type Exercise, type ExerciseKind } from './practice/exercise.js';
export { stepMotion, type StepMotion } from './plan/step-motion.js';
export { stepsRecord } from './plan/steps-record.js';
export { type LineReading } from './plan/reading.js';
export { extentOf } from './plan/score-runs.js';
export { innerCuts, type InnerCut } from './plan/cut-runs.js';
export { materialsOf, type Material } from './plan/materials.js';
export { closedSizeOf, type ClosedSize } from './card/closed-size.js';
export { cardOfClosedSize, LOOKS, proportionsOf, sizeForEnvelope, sizeForSheet, type Look } from './plan/closed-size.js';
export { compared, type Comparison } from './trial/compare.js';
export { changesBetween } from './card/changes.js';
export * from './card/dress-card.js';
export { foldBetween } from './dress/liner.js';
export { withImage } from './card/own-images.js';
export { LARGEST_IMAGE, MOST_IMAGES, MOST_OUTLINES, type OwnImage } from './card/document.js';
export { imageSize, imageTypeOf, type ImageType } from './image/image-file.js';
export { pixelsPerMm } from './image/resolution.js';
export { outlineOfImage, type CutAlong, type ImageOutline } from './format/image-outline.js';
export type { Pixels } from './image/pixels.js';
export { imageCorners } from './sheet/image-corners.js';
export type { PieceImage } from './sheet/piece.js';
export { outlineId } from './format/outline-name.js';
export {
  BACKING_BORDER,
  COVER_WIDTH,
  FASTENER_THICK,
  GIFT_GRAMS,
  GIFT_THICK,
  FILM_LENGTH,
  FILM_WIDTH,
  GLUE_DEEP,
  JOINT_PLACE,
  MARGIN,
  MOST_BACKINGS,
  MOST_BORDER,
  MOST_FOAM,
  MOST_PAST,
  MOST_TIMES,
  MOST_STEPS,
  MOST_TOPPERS,
  SIDE_NAMES,
  STRIP_WIDTH,
  SIDES,
  TOPPER_HEIGHT,
  TOPPER_PLACE,
  TOPPER_WIDTH,
  type GluedPart,
  type LayerJoint,
  type LayerRule,
  type LinedFold,
  type LayerStrips,
  type Topper,
  type TopperFilm,
  type OwnDress,
  type Side,
} from './card/dressing.js';
export type { BareFace, DressedLayer, Layers, Moment } from './dress/layer.js';
export {
  BAND_PLACE,
  BAND_WIDTH,
  CAPITALS,
  closuresOf,
  DISC,
  DISC_THICK,
  ENVELOPE_EASE_LIMITS,
  FLAP_OVERLAP_LIMITS,
  MOST_CLOSURES,
  MOST_WORDS,
  RIBBON_END,
  RIBBON_LOOP,
  RIBBON_WIDTH,
  type BandClosure,
  type Closure,
  type Greeting,
  type MagnetClosure,
  type OwnEnvelope,
  type RibbonClosure,
} from './card/dressing.js';
export { SHADES, shadeHex, type Shade } from './supplies/shades.js';
export { evenBorder, snapPlaces, type SnapPlace } from './dress/snap-places.js';
export { envelopeLimit } from './dress/envelope-limit.js';
export { aspectOf, shapeNamed } from './plane/shapes.js';
export { areasOf } from './plane/boolean.js';
export { ownOutlines } from './card/own-outlines.js';
export { STYLES, STYLE_IDS, type StyleId } from './letters/styles.js';
export { inkOn } from './format/facet.js';
export type { PlacedMagnet, SunkDisc } from './dress/magnets.js';
export { usualMagnet } from './dress/usual-magnet.js';
export type { PlacedRibbon } from './dress/ribbons.js';
export { type EnvelopeOnMarks, type FoldedEnvelope } from './dress/folded-envelope.js';
export type { PlacedBand } from './dress/bands.js';
export type { Dressed } from './dress/dress.js';
export type { LostTopper, PlacedTopper } from './dress/toppers.js';
export type { TopperSheet } from './dress/topper-sheets.js';
export { bandRound, type Band, type BandedCard } from './dress/band.js';
export { ENVELOPE_EASE, FLAP_OVERLAP, squareEnvelope, type PostedCard, type SquareEnvelope } from './dress/square-envelope.js';
export {
  cutterMoves,
  CUTTER_TOOLS,
  USUAL_CUTTER,
  type CutterJob,
  type CutterLine,
  type CutterMachine,
  type CutterMove,
  type CutterTool,
} from './plan/cutter-job.js';
export { cutterReport, type CutterReport } from './plan/cutter-report.js';
export { Cutter, NoSuchPlot, NotTaken, type CutterProgress, type CutterState } from './format/cutter.js';
export { factsOf, type MechanismFacts } from './format/handbook.js';
export { pictureOfCut, readCutterSvg, type CutterReading } from './format/cutter-svg.js';
export { LARGEST_SVG } from './format/svg-lines.js';
