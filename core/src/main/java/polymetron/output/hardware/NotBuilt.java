package polymetron.output.hardware;

/**
 * Something of a platform that no hardware is written for yet.
 *
 * @param subject block, bus or domain
 * @param why what is missing, in words
 */
public record NotBuilt(String subject, String why) {}
