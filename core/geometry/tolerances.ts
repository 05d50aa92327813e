/** Tolerances of geometry, in mm. */

/** A curve may differ this much from the polyline that the machine draws: half a step of most cutters. */
export const FLATTEN_MM = 0.0125;

/** Points nearer than this are one point: a tenth of what any blade resolves. */
export const SAME_POINT_MM = 0.01;

/** An outline whose ends lie nearer than this counts as closed. */
export const CLOSES_WITHIN_MM = 0.05;

/** Arc lengths are computed to this. */
export const LENGTH_MM = 1e-6;
