/** Most bytes of a file that one request brings, where a file comes in pieces. */
export const PIECE_BYTES = 4 * 1024 * 1024;
