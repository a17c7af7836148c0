/** An absolute address of the web (RFC 3986 §4.3), of characters that may stand in one. */
export const WEB_ADDRESS =
  /^https?:\/\/[A-Za-z0-9.-]{1,100}(?::\d{1,5})?(?:[/?#][\x21\x23-\x3b\x3d\x3f-\x5b\x5d\x5f\x61-\x7a\x7e]{0,300})?$/;

/** The same, or nothing. */
export const WEB_ADDRESS_OR_NONE = new RegExp(`^$|${WEB_ADDRESS.source}`);
