/** Longest wish, and longest text on which a draft draws, in UTF-16 code units. */
export const MAX_WISH = 2_000
export const MAX_DRAWN_ON = 500_000
