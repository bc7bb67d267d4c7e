package polymetron.merge;

/** An edit that was made on an older revision and cannot be carried over to the newest. */
public final class MergeRefused extends Exception {
    MergeRefused(String reason) {
        super(reason);
    }
}
