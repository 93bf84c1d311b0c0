/** What is kept: cards and the workshop, their files, and how lengths are read and printed. No geometry comes with it. */
export * from './measure/units.js';
export * from './measure/parse.js';
export * from './measure/print.js';
export * from './measure/ruler.js';
export { sayInWords, told } from './measure/sentence.js';
export * from './supplies/boards.js';
export * from './supplies/envelopes.js';
export * from './supplies/sheets.js';
export * from './supplies/stocks.js';
export * from './supplies/workshop.js';
export * from './supplies/starter-workshops.js';
export * from './supplies/supplies-in-use.js';
export { introduction, MECHANISMS, type Introduction, type MechanismId } from './mechanism/introductions.js';
export {
  boardOf,
  envelopeOf,
  movementsOf,
  newCard,
  ROOT,
  rootOf,
  withOwnSupplies,
  type CardDocument,
  type CardPart,
  type Place,
} from './card/document.js';
export { DEMO_CARDS } from './card/demo-cards.js';
export type { FileProblem } from './format/file-problem.js';
export * from './format/card-file.js';
export { readShelfFile, writeShelfFiles, LARGEST_SHELF_FILE } from './format/shelf-file.js';
export * from './format/workshop-file.js';
export * from './format/build-record.js';
export * from './logbook/build.js';
export { CALIBRATED, type Calibration } from './supplies/calibration.js';
export * from './format/papers.js';
export { together, type SampleCounts } from './trial/sample-counts.js';
