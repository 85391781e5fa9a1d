/** What the address of a reply is told with that was just begun: the hand goes on in its words. */
export const JUST_BEGUN = "just begun";
