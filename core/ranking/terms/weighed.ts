/** A text as weights of terms, its length one. */
export interface Weighed {
  terms: Int32Array;
  weights: Float32Array;
}

/** Weighed texts, one after the other in one list. */
export interface Weighings extends Weighed {
  /** Where each ends. */
  ends: number[];
}
