/** The only file with bare epsilons in it. Every number has a unit and a reason. */

/** Pattern points closer than this are one vertex (mm): far below what a knife can follow. */
export const WELD_MM = 1e-4;
/** A cell of the clipping grid (mm). Areas of a card then round off below 1e-6 relative. */
export const CLIP_PRECISION_DIGITS = 6;
/** A loop is closed below this (mm). The gap at a joint is up to about 20 times larger, so joints stay under 1e-6 mm. */
export const LOOP_ACCEPT_MM = 1e-9;
/** What Newton aims for (mm): one more iteration, needed near the ends where the folds lag the residual. */
export const LOOP_AIM_MM = 1e-11;
/** Folds that lie this near to 0 or 180 when extrapolated to a drive's end are taken as exact (rad): 1 degree. */
export const SNAP_WINDOW_RAD = Math.PI / 180;
/** A crease may stray this far past flat before its role counts as reversed (rad). */
export const ROLE_SLACK_RAD = 1e-6;
/** Singular values below this part of the largest count as zero: true ratios stay above 1e-6, noise below 1e-15. */
export const RANK_CUT = 1e-9;
/** Rank at a generic pose: nothing generic is this close to singular. */
export const GENERIC_RANK_CUT = 1e-7;
/** Largest change of one fold in a Newton step (rad); keeps the branch. */
export const NEWTON_CAP_RAD = 0.5;
/** Largest change of one fold in an energy step (rad). */
export const ENERGY_CAP_RAD = 0.2;
/** Gradient along the free directions, relative to the whole gradient, at which an energy pose is settled. */
export const ENERGY_SETTLED = 1e-10;
/** A travel is not halved below this step (rad): 1e-3 degrees. Below it the stop is reported. */
export const LEAST_STEP_RAD = (1e-3 * Math.PI) / 180;
/** A drive value this near to an end is at the end (rad). */
export const AT_END_RAD = 1e-9;
/** A misfit below this is rounding of the lengths that were typed in, not bending (mm). */
export const FLEX_FROM_MM = 1e-3;
/** Facets count as one plane when closed within this plus the paper stacked there (mm; handbook section 1). */
export const FLAT_PLANE_MM = 0.05;
/** Lengths that differ by less than this are equal to a maker (mm): typed with four decimals. */
export const LENGTH_EQUAL_MM = 1e-4;
/** Part of a glue area that may miss its facet by rounding of the clipping grid. */
export const AREA_ROUNDING = 1e-7;
/** Reach past an edge below this is rounding, not overhang (mm). */
export const OVERHANG_FROM_MM = 1e-3;
/** Two facets whose planes meet at less than this lie on each other and cannot pierce (mm of run inside). */
export const CONTACT_MM = 0.05;
/** A length read from text is the same fraction of an inch within this (in). */
export const FRACTION_IN = 1e-7;
/** Two mechanisms may share this much paper by rounding (mm²): a cut they have in common. */
export const CLASH_FROM_MM2 = 0.01;
