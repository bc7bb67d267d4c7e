package polymetron.board;

/**
 * Something that is wrong with a board.
 *
 * @param at JSON pointer of the place in the document
 * @param what what is wrong, and what would be right
 */
public record BoardProblem(String at, String what) {}
