import type { Mm } from '../measure/units.js';
import type { Shade } from './shades.js';

/** What a sheet is, which decides how it is joined and whether it is seen through. */
export type StockKind = 'card' | 'paper' | 'film' | 'foam';

/** A sheet material. Values of the starter workshops are typical of their kind: measure your own and correct them. */
export interface Stock {
  id: string;
  name: string;
  kind: StockKind;
  /** thickness of one sheet; for foam, of one mm of height */
  caliper: Mm;
  /** g/m² at that thickness */
  weight: number;
  /** Young's modulus along the grain, N/mm² */
  stiffness: number;
  /** which way the grain runs on a sheet as it is bought */
  grain?: 'long' | 'short' | 'none';
  /** how many of its faces may be seen */
  goodSides?: 1 | 2;
  /** the colour that it is drawn in; by what it is for where left out */
  shade?: Shade;
  /** sheets as they are bought, and how many are left */
  sheet?: { width: Mm; height: Mm };
  left?: number;
  /** heights that raised stock is sold in */
  heights?: readonly Mm[];
}

/** What a piece is cut from; the card says which stock that is. */
export const STOCK_ROLES = ['base', 'mechanism', 'display', 'film', 'stop'] as const;
export type StockRole = (typeof STOCK_ROLES)[number];

/** Card and paper come out of sheets; film and foam are bought and cut otherwise. */
export const comesOutOfSheets = ({ kind }: Pick<Stock, 'kind'>): boolean => kind === 'card' || kind === 'paper';

/** What a maker calls the stock of a role. */
export const ROLE_NAMES: Readonly<Record<StockRole, string>> = {
  base: 'Base stock',
  mechanism: 'Mechanism stock',
  display: 'Display stock',
  film: 'Clear film',
  stop: 'Raised stock',
};

export const STOCK_KIND_NAMES: readonly { value: StockKind; label: string }[] = [
  { value: 'card', label: 'card' },
  { value: 'paper', label: 'paper' },
  { value: 'film', label: 'clear film' },
  { value: 'foam', label: 'foam' },
];

export const isClear = ({ kind }: Pick<Stock, 'kind'>): boolean => kind === 'film';

/** Thickness of ten sheets pressed together, measured at once, as that of one: an error of the caliper counts a tenth. */
export const caliperOfTen = (ten: Mm): Mm => ten / 10;

/** A sheet bent so sharply that its faces are stretched by a fiftieth, ½·caliper ÷ radius, keeps a crease. An estimate. */
const CREASING_STRAIN = 1 / 50;

/** The least radius that a sheet is bent to without a crease. */
export const leastBendRadius = ({ caliper }: Pick<Stock, 'caliper'>): Mm => caliper / (2 * CREASING_STRAIN);

const GRAVITY = 9.81;
/**
 * Young's modulus of a strip that droops under its own weight over a table edge, N/mm².
 * E ≈ 1.5·ρ·g·L⁴/(δ·h²) for a cantilever of free length L with droop δ, thickness h and density ρ = weight ÷ h
 * (uniform load q = ρ·g·b·h, I = b·h³/12, δ = q·L⁴/(8·E·I)); good for droops under a fifth of the length.
 * @param weight g/m²  @throws RangeError naming what is not positive
 */
export function stiffnessFromDroop({ length, droop, caliper, weight }: Record<'length' | 'droop' | 'caliper' | 'weight', number>): number {
  for (const [name, value] of Object.entries({ length, droop, caliper, weight })) {
    if (!(value > 0)) throw new RangeError(`${name}: ${value} does not work; allowed is more than 0`);
  }
  // g/m² ÷ mm = kg/m³ = 1e-9 kg/mm³; N = kg·m/s², so g stays in m/s².
  const density = (weight / caliper) * 1e-9;
  return (1.5 * density * GRAVITY * length ** 4) / (droop * caliper ** 2);
}
