/** A telephone number as gateways write it (ITU-T E.164). */
export const E164 = /^\+[1-9]\d{5,14}$/;
