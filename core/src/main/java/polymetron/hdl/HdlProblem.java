package polymetron.hdl;

/**
 * Something in HDL that cannot be read or used.
 *
 * @param file name of the file
 * @param line from 1
 * @param what what it is, and what would do
 */
public record HdlProblem(String file, int line, String what) {
    /** File and line as compilers write them. */
    public String place() {
        return file + ":" + line;
    }
}
