package polymetron.server.store;

/**
 * What the list of platforms says about a revision.
 *
 * @param library edition of the library that it was worked out with
 * @param board title of the board
 * @param errors findings of this grade that is not accepted
 * @param warnings the same
 */
public record Summary(String library, String board, int blocks, int errors, int warnings) {}
