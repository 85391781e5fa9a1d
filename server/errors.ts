/** What a person asked for is not there, or not for them to see. */
export class NotFound extends Error {}

/** A person's role does not allow what they asked. */
export class NotAllowed extends Error {}

/** Somebody else was quicker: what was asked rests on an older state. */
export class Conflict extends Error {}

/** What was given cannot be used; the message says what, where and how to mend it. */
export class Unusable extends Error {
  constructor(
    message: string,
    /** The field of the request that it is about, where it is about one. */
    readonly at?: string,
  ) {
    super(message);
  }
}
