package polymetron.elaborate;

/**
 * The document refers to something that is not there.
 *
 * @param subject block, bus or domain that refers
 * @param sort what refers
 * @param name input, interface, source or parameter that refers; null where the subject itself does
 * @param what what is missing, in words
 */
public record DanglingReference(String subject, Sort sort, String name, String what) {
    /** What can refer to something. */
    public enum Sort {
        BOARD,
        BLOCK_TYPE,
        PARAMETER,
        INPUT_DOMAIN,
        BUS_DOMAIN,
        ATTACHMENT,
        CLOCK,
        RESET,
        STREAM,
        INTERRUPT,
        PART
    }
}
