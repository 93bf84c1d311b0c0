import type { Verdict } from './finding.js';

/** Which checks look at the root of what others only feel. A fault of the first kind explains one of the second. */
const ROOTS: Readonly<Record<string, readonly string[]>> = {
  'closes-loop': ['equal-widths', 'agrees'],
  'folds-flat': ['equal-widths', 'agrees', 'bent-rows-meet', 'meets', 'rises'],
  'stays-inside': ['equal-widths', 'bent-rows-meet', 'meets'],
  clears: ['equal-widths', 'agrees', 'bent-rows-meet', 'meets', 'rises', 'reserved-clear', 'never-past'],
  meets: ['equal-widths'],
};

/**
 * Tells causes from consequences: a failing finding without a cause of its own follows from a failing
 * root that it shares a panel with, or, when it is about the whole card, from any.
 */
export function withCauses(findings: readonly Verdict[]): Verdict[] {
  const failing = findings.filter((finding) => finding.severity === 'fail');
  return findings.map((finding) => {
    if (finding.severity !== 'fail' || finding.followsFrom) return finding;
    const root = failing.find(
      (cause) => (ROOTS[finding.check] ?? []).includes(cause.check) && cause !== finding && isAbout(finding, cause),
    );
    return root ? { ...finding, followsFrom: root.id } : finding;
  });
}

function isAbout(effect: Verdict, cause: Verdict): boolean {
  if (!effect.panels || effect.check === 'folds-flat' || effect.check === 'closes-loop') return true;
  return effect.panels.some((panel) => cause.panels?.includes(panel));
}
