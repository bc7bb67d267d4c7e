package polymetron.server.store;

/**
 * What the list of platforms says about a revision.
 *
 * @param library edition of the library that it was worked out with
 * @param board title of the board
 * @param errors findings of this grade that is not accepted
 * @param warnings the same
 * @param fit how much of the scarcest part of the device is taken, such as {@code 62 % of memory blocks}; empty without blocks,
 *     null in a summary of an earlier time
 */
public record Summary(
        String library, String board, int blocks, int errors, int warnings, String fit) {}
