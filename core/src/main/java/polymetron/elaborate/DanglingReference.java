package polymetron.elaborate;

/**
 * The document refers to something that is not there.
 *
 * @param subject block, bus or domain that refers
 * @param what what is missing, in words
 */
public record DanglingReference(String subject, String what) {}
