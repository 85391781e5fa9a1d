/** Long work pauses after so many texts. */
export const PAUSE = 50;
