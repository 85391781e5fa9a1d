import { createContext } from "react";

/** The tag of the house's language with its region, by which its days are written. */
export const RegionContext = createContext("en-GB");
