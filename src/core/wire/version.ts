/** The version of what travels over the WebSocket. Apart from its schemas, which a page may load after itself. */
export const wireVersion = 1;
