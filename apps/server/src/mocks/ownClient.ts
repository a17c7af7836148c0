/** Name the application gives itself when it sends a message for its user. */
export const OWN_CLIENT = 'isomeros-here';
