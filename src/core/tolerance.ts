/** The only file with bare epsilons in it. Every number has a unit and a reason. */

/** Pattern points closer than this are one vertex (mm): far below what a knife can follow. */
export const WELD_MM = 1e-4;
/** A cell of the clipping grid (mm). Areas of a card then round off below 1e-6 relative. */
export const CLIP_PRECISION_DIGITS = 6;
/**
 * A loop is closed below this (mm). The gap at a joint is up to about 20 times larger, so joints stay under 1e-6 mm.
 */
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
/** A travel is not halved below this step (of 180 parts of its range): 1e-3 degrees of an opening; then it stops. */
export const LEAST_STEP_PART = 1e-3;
/** A drive value this near to an end is at the end (rad or mm). */
export const AT_END_RAD = 1e-9;
/** A misfit below this is rounding of the lengths that were typed in, not bending (mm). */
export const FLEX_FROM_MM = 1e-3;
/** Facets count as one plane when closed within this plus the paper stacked there (mm; docs/mechanisms.md). */
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

/** Less of an opening than this is covered by an edge that laps over it. */
export const HIDDEN_FROM_MM2 = 1;
/** Sheets whose planes meet at less than this sine lie on each other: 1e-9 of a metre is far below any paper. */
export const PARALLEL_SINE = 1e-9;
/** A size that passes a limit by less than this is the limit, rounded (mm). */
export const SIZE_ROUNDING_MM = 1e-6;
/** A neck's ends may lean this much (sine) out of the square and still count as nearest: rounding of parallel lines. */
export const NECK_SIDEWAYS = 1e-6;
/** A loop further open than this does not close as rigid facets (mm): a thousand times what is accepted. */
export const LOOP_BENT_MM = 1e3 * LOOP_ACCEPT_MM;
/** What a mechanism is cut from may pass the edge of its paper by this much (mm): an outline's chords do. */
export const OFF_PAPER_FROM_MM = 0.02;
/** An arc takes the place of chords whose ends lie this near to it (mm): far below what curves are drawn with. */
export const ARC_FIT_MM = 2e-3;
/** Chords that leave an arc by more than this were drawn as corners (mm): curves are drawn within 0.01 mm. */
export const ARC_SAGITTA_MM = 0.012;
/** μ over the mean of diag(J W⁻¹ Jᵀ): alters the way, never where it ends, since the error goes to nothing. */
export const KKT_REGULARISATION = 1e-12;
/** Creases run through one point within this (mm). */
export const SAME_POINT_MM = 1e-6;
/** Keeps pivots of dependent rows from vanishing, small beside what tells a row of its own from rounding. */
export const RANK_REGULARISATION = 1e-14;
/** A row whose pivot is smaller than this part of the greatest repeats others: redundancy is the rule. */
export const INDEPENDENT_ROW = 1e-10;
/** Opposite sectors of a vertex that folds flat add up to half a turn within this (rad; Kawasaki, Justin). */
export const KAWASAKI_RAD = 1e-6;
/** Folds below this count as this large when change is measured against size (rad). */
export const LEAST_SIZE_RAD = 1e-7;
/** Sizes of folds that change by no larger a part than this in a step have arrived. */
export const SIZE_ARRIVED = 1e-6;
/** An overdetermined block has settled when its steps are smaller than this (rad). */
export const SETTLED_RAD = 1e-10;
/** A fold past its bound by less than this is at it (rad). */
export const BOUND_SLACK_RAD = 1e-12;
/** An approach has arrived when its steps are smaller than this (rad); Newton does the rest. */
export const ARRIVED_RAD = 1e-9;
/** A fold that moved by less than this part of the step has not moved. */
export const STAYED_PART = 1e-9;
/** A crease that has folded by less than this has not left the flat sheet (rad). */
export const STAYED_FLAT_RAD = 1e-8;
/** Room for rounding in the allowed correction (rad). */
export const CORRECTION_SLACK_RAD = 1e-6;
/** Smallest over largest singular value from which a pose is regular. */
export const REGULAR_POSE = 1e-4;
/** A body held along one line only may turn about it: this part of the greatest diagonal keeps the matrix positive. */
export const BENDING_FLOOR = 1e-9;
/** The search has ended when the cost falls by less than this part of it, or than this much (mm²). */
export const BENDING_GAINED_PART = 1e-10;
/** BENDING_GAINED_MM2. */
export const BENDING_GAINED_MM2 = 1e-20;
/** Cosine between two columns, for each row of theirs, that is rounding. */
export const ORTHOGONAL = 5e-16;
/** A column this short beside the longest is rounding itself: it stands for a value of 0 and is turned no further. */
export const NOTHING_BESIDE = 1e-15;
/** Lines are on the outline within the grid that it was united on. */
export const ON_EDGE_MM = 1e-3;
/** Level lines are asked just above and below a crease, further than the clipping grid and nearer than a weld (mm). */
export const BESIDE_MM = 1e-5;
/** What a few sums and products of lengths on a card leave of rounding (mm). */
export const ROUNDING_MM = 1e-9;
/** Levels, intervals and contacts of an outline agree within this (mm): the clipping grid. */
export const SAME_LEVEL_MM = 1e-6;
/** Two directions whose cross product is this part of their lengths are parallel: double precision, with room. */
export const PARALLEL_PART = 1e-12;
/** A turn that misses a full one, or a half one, by less than this is one (rad). */
export const ANGLE_ROUNDING_RAD = 1e-9;
/** What hangs no higher than this over the lowest point rests on the table (mm): less than a sheet of card. */
export const ON_TABLE_MM = 0.2;
/** The modulus of a bowed strip is known to this (of 1): its places then to below 1e-9 of its length. */
export const ELASTICA_PART = 1e-13;
/** Shapes on a sheet may enter each other's room by this much (mm): the clipping grid. */
export const NEST_TOUCH_MM = 1e-6;
