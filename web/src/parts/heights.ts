// Room kept for pictures while they are fetched, px: nothing may move when they come.

/** Caption and buttons of a figure: a caption in two lines moves nothing. */
export const CAPTION_HEIGHT = 40;
/** Border, padding, caption and buttons of a figure. */
const AROUND = 18 + CAPTION_HEIGHT;

/** A figure whose picture is so high. */
export const figureHeight = (picture: number): number => picture + AROUND;

/** One line of bars. */
export const BAR_ROW = 44;
/** Axis and title below the bars. */
const BAR_FOOT = 62;

/** The picture of so many bars. */
export const barsHeight = (lines: number): number => lines * BAR_ROW + BAR_FOOT;

/** Where a picture will be. */
export const EMPTY_FIGURE = 220;
