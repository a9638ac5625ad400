/** The posed view's own picture: told by the view that is shown, absent where the browser has no graphics. */

/** A PNG of the view as it is looked at now, so many pixels wide, as a data URL; `ground` a colour or nothing. */
export type Shoot = (widthPx: number, ground: string | null) => string;

const shown: { shoot: Shoot | null } = { shoot: null };
export const showsNow = (shoot: Shoot | null): void => void (shown.shoot = shoot);
export const shotNow = (): Shoot | null => shown.shoot;
