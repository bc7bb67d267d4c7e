package polymetron.software;

/** How a processor sees the memory of its program when it loads and stores. */
public enum Reading {
    /** At the address where it executes it. */
    SAME_ADDRESS,
    /** At another address: what is linked for one is wrong for the other. */
    ELSEWHERE,
    /** Not at all: it finds something else at the program's addresses. */
    COVERED,
    /** Not at all, and nothing else is there: constants and variables need a memory of their own. */
    HIDDEN;

    /** Whether a program can be linked at all. */
    public boolean allowsProgram() {
        return this == SAME_ADDRESS || this == HIDDEN;
    }
}
