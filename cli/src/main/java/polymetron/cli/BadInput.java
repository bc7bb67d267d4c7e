package polymetron.cli;

/** What was given on the command line cannot be used. */
final class BadInput extends RuntimeException {
    BadInput(String message) {
        super(message);
    }
}
