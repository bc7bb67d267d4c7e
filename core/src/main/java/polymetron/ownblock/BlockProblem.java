package polymetron.ownblock;

/**
 * Something that is wrong with a block of one's own.
 *
 * @param at JSON pointer into its document, or file and line
 * @param what what is wrong, and what would be right
 */
public record BlockProblem(String at, String what) {}
