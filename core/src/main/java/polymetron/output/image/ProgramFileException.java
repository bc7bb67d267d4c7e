package polymetron.output.image;

/** A file is no program that the platform can run; the message says why and what would be right. */
public final class ProgramFileException extends RuntimeException {
    public ProgramFileException(String message) {
        super(message);
    }
}
