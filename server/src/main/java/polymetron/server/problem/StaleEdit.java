package polymetron.server.problem;

import java.util.List;

/** A change was made to a revision that is no longer the newest. */
public final class StaleEdit extends RuntimeException {
    private final long revision;
    private final List<String> meanwhile;

    /**
     * @param revision the newest revision
     * @param meanwhile what was changed since, oldest first
     * @param reason why the change cannot be carried over; null when that was not tried
     */
    public StaleEdit(long revision, List<String> meanwhile, String reason) {
        super(
                "%sthe platform is at revision %s by now; meanwhile: %s"
                        .formatted(
                                reason == null ? "" : reason + "; ",
                                revision,
                                meanwhile.isEmpty() ? "nothing" : String.join("; ", meanwhile)));
        this.revision = revision;
        this.meanwhile = List.copyOf(meanwhile);
    }

    public long revision() {
        return revision;
    }

    public List<String> meanwhile() {
        return meanwhile;
    }
}
