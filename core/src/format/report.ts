import { stockOf } from '../card/card-stocks.js';
import { envelopeOf, movementsOf, ROOT, rootOf } from '../card/document.js';
import { postedCard } from '../dress/posted-card.js';
import { squareEnvelope } from '../dress/square-envelope.js';
import { easeIn, fits } from '../supplies/envelopes.js';
import { boxOf } from '../plane/outline.js';
import { toDegrees } from '../measure/units.js';
import { whatShows } from '../card/what-shows.js';
import { innerCuts } from '../plan/cut-runs.js';
import { readTracked, type Evaluation } from '../evaluate.js';

/** The whole evaluation as one plain record, for scripts. Lengths mm, angles degrees; axes as in `Piece`. */
export type Report = ReturnType<typeof report>;

export function report(evaluation: Evaluation) {
  const { design, motion, closed, sheets, dressed, measures, findings, openHeight, resting } = evaluation;
  const intended = boxOf(design.base.closedOutline);
  const readings = (frame: (typeof motion.frames)[number]) =>
    Object.fromEntries(
      design.tracked.map((tracked) => {
        const value = readTracked(evaluation, tracked, frame);
        return [tracked.id, tracked.kind === 'angle' ? toDegrees(value) : value];
      }),
    );
  return {
    mechanism: (movementsOf(design.card)[0] ?? rootOf(design.card)).mechanism,
    parts: design.parts.map(({ id, mechanism, title, on }) => ({ id, mechanism, title, on: on ?? null })),
    base: rootOf(design.card).mechanism,
    pieces: sheets.map((sheet) => ({
      id: sheet.piece.id,
      name: sheet.piece.name,
      part: sheet.piece.part ?? ROOT,
      stock: stockOf(design, sheet.piece).id,
      role: sheet.piece.stock,
      faceUp: sheet.piece.faceUp,
      width: sheet.width,
      height: sheet.height,
      outline: sheet.outline,
      scores: sheet.scores.map(({ id, name, from, to, fold }) => ({ id, name, from, to, fold })),
      cuts: sheet.cuts,
      cutList: innerCuts(sheet, design.card.notation).map(({ id, fence, distance, start, stop, again }) => ({
        id,
        fence,
        distance,
        start,
        stop,
        again,
      })),
      windows: sheet.windows,
      glue: sheet.zones.filter((zone) => zone.kind === 'glue').map(({ id, face, outline }) => ({ id, face, outline })),
    })),
    layers: dressed.layers.map((layer) => ({
      id: layer.id,
      number: layer.number,
      panel: layer.panel,
      face: layer.face,
      step: layer.step,
      stock: layer.stock.id,
      // Sizes, outlines and borders in the axes of the panel as it is drawn on its piece, upper face toward you.
      width: layer.box.width,
      height: layer.box.height,
      panelWidth: layer.panelBox.width,
      panelHeight: layer.panelBox.height,
      outline: layer.area.outer,
      openings: layer.area.holes,
      panelOutline: design.panels[design.linkage.bodyOf.get(layer.panel)!]!.area.outer,
      borders: layer.borders,
      twinOf: layer.twin?.of ?? null,
      twinBy: layer.twin?.by ?? null,
      upWhenOpen: layer.upWhenOpen,
      shows: layer.shows,
      // As it is cut from its paper: good side toward you, what is up on the open card at the top.
      cut: {
        width: layer.sheet.width,
        height: layer.sheet.height,
        outline: layer.sheet.outline,
        scores: layer.sheet.scores.map(({ id, name, fold, from, to }) => ({ id, name, fold, from, to })),
      },
      // In one piece with others: all the layers that it is, and by how much it is shorter over each fold than its panels.
      liner: layer.liner ?? null,
      // What of it stands past its panel, and the line along which two papers meet.
      past: layer.past.map(({ outer }) => outer),
      joint: layer.joint ?? null,
    })),
    toppers: dressed.toppers.map((placed) => ({
      id: placed.topper.id,
      number: placed.number,
      name: placed.topper.name ?? placed.outlineName,
      panel: placed.panel,
      face: placed.face,
      stock: placed.stock.id,
      // Its middle and outline in the axes of the panel as it is drawn on its piece, upper face toward you.
      at: placed.at,
      outline: placed.area.outer,
      width: placed.sheet.width,
      height: placed.sheet.height,
      turn: toDegrees(placed.topper.turn ?? 0),
      mount: placed.topper.film ? 'film' : placed.topper.foam === undefined ? 'flat' : 'foam',
      times: placed.times,
      thickness: placed.stands,
      // Papers behind it, its film and its twin, from the panel outward.
      under: placed.under.map(({ id, as, number, face, stock, area, sheet }) => ({
        ...{ id, as, number, face },
        stock: stock.id,
        outline: area.outer,
        openings: area.holes,
        cut: { width: sheet.width, height: sheet.height, outline: sheet.outline },
      })),
      pads: placed.pads,
      glued: placed.topper.glued ?? ('all' as const),
      glue: placed.glue,
      tag: placed.tag ?? null,
      removable: placed.topper.removable ?? false,
      greeting: placed.topper.greeting ? { ...placed.topper.greeting, past: placed.greeting?.past ?? 0 } : null,
      shows: placed.shows,
    })),
    closures: closuresRecord(dressed),
    openingOrder: dressed.order.map(({ panels, order, first, over }) => ({ panels, order, first: first ?? null, over })),
    envelope: envelopeRecord(evaluation),
    bare: dressed.bare.map(({ panel, face, why }) => ({ panel, face, why })),
    measures: measures.map(({ owner, name, label, value, unit, because }) => ({
      owner,
      name,
      label,
      value: unit === 'rad' ? toDegrees(value) : value,
      unit: unit === 'rad' ? 'deg' : unit,
      because,
    })),
    closed: {
      width: closed.box.maxX - closed.box.minX,
      height: closed.box.maxY - closed.box.minY,
      thickness: closed.thickest.thickness,
      intended: { width: intended.maxX - intended.minX, height: intended.maxY - intended.minY },
      foldEdge: design.card.foldEdge,
      posting: design.words.posting ?? null,
    },
    open: { height: openHeight, opening: toDegrees(resting.opening), ...readings(resting) },
    standing: {
      weight: evaluation.standing.weight,
      margin: evaluation.standing.margin,
      height: evaluation.standing.height,
      tipAngle: toDegrees(evaluation.standing.tipAngle),
      toward: evaluation.standing.toward,
    },
    shows: whatShows(design, motion, closed),
    findings: findings.map(({ id, check, severity, owner, shortfall, value, limit, unit, says, followsFrom, panels, creases, fix }) => ({
      id,
      check,
      severity,
      owner,
      shortfall,
      value: value ?? null,
      limit: limit ?? null,
      unit: unit ?? null,
      says,
      followsFrom: followsFrom ?? null,
      panels: panels ?? [],
      creases: creases ?? [],
      fix: fix ?? null,
    })),
    motion: {
      frames: motion.frames.length,
      worstMisfit: motion.worstMisfit,
      reachable: { from: toDegrees(motion.reachable.opening[0]), to: toDegrees(motion.reachable.opening[1]) },
      freedom: motion.freedom,
      poses: motion.frames.map((frame) => ({ opening: toDegrees(frame.opening), misfit: frame.misfit, ...readings(frame) })),
    },
  };
}

/** The envelope that was chosen, with the room it leaves, and the square that folds into one for this card. */
function envelopeRecord({ design, closed, dressed }: Evaluation) {
  const posted = postedCard(closed, dressed);
  const chosen = envelopeOf(design.card);
  const { square, firstFold } = squareEnvelope(posted);
  return {
    id: chosen?.id ?? null,
    name: chosen?.name ?? null,
    fits: chosen ? fits(posted.width, posted.height, posted.thickness, chosen) : null,
    spare: chosen ? easeIn(posted.width, posted.height, posted.thickness, chosen) : null,
    square,
    firstFold,
    // As it is folded for this card, every place on a mark of the ruler.
    folded: dressed.envelope
      ? { ...dressed.envelope.made, stock: dressed.envelope.stock.id, liner: dressed.envelope.liner?.stock.id ?? null }
      : null,
  };
}

/** Everything that keeps the closed card closed; places and lengths as elsewhere. */
function closuresRecord({ bands, magnets, ribbons }: Evaluation['dressed']) {
  const disc = ({ panel, face, at, blanks, coveredBy, fromEdge }: (typeof magnets)[number]['first']) => ({
    ...{ panel, face, at, blanks, fromEdge },
    coveredBy: coveredBy === '' ? 'cover' : coveredBy,
  });
  return [
    ...bands.map(({ closure, number, stock, thickness, band, ways }) => ({
      id: closure.id,
      number,
      kind: closure.kind,
      around: closure.around,
      wide: closure.wide,
      at: closure.at,
      stock: stock.id,
      thickness,
      length: band.length,
      folds: band.folds,
      overlap: band.overlap,
      slip: band.slip,
      fastener: closure.fastener ?? null,
      gift: closure.gift ?? null,
      slidesOff: ways.map(({ toward, free, over }) => ({ toward, free, over })),
    })),
    ...magnets.map(({ closure, number, stock, first, second, apart, still }) => ({
      id: closure.id,
      number,
      kind: closure.kind,
      stock: stock.id,
      disc: closure.disc,
      thick: closure.thick,
      first: disc(first),
      second: second ? disc(second) : null,
      apart,
      parts: !still,
    })),
    ...ribbons.map(({ closure, number, thickness, ribbon, slits, panel }) => ({
      ...{ id: closure.id, number, kind: closure.kind, way: closure.way, around: closure.around, wide: closure.wide, at: closure.at },
      ...(panel && { panel: panel.id }),
      ...{ thickness, ...ribbon, slits: slits.map(({ piece, crease, from, to }) => ({ piece, crease, from, to })) },
    })),
  ];
}
