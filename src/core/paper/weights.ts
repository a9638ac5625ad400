/** What is stuck on card weighs, beside the paper itself, which is known by its grammage. g/cm³ = mg/mm³. */

/** Adhesive foam of polyethylene, 0.06 to 0.15; common practice, no source: weigh your own. */
export const FOAM_DENSITY = 0.1;
/** Spacers and tokens are cut from board: 240 g/m² at 0.3 mm, as the starter stocks are. */
export const BOARD_DENSITY = 0.8;
/** Rivets are of brass: 8.4 to 8.7, tables of materials (from memory). */
export const BRASS_DENSITY = 8.5;
