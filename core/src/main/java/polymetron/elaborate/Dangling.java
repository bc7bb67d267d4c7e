package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;

/** Collects references that lead nowhere, in the order in which they are met. */
final class Dangling {
    private final List<DanglingReference> found = new ArrayList<>();

    /**
     * @param subject block, bus or domain that refers
     * @param what what is missing, in words
     */
    void missing(String subject, String what) {
        found.add(new DanglingReference(subject, what));
    }

    List<DanglingReference> all() {
        return List.copyOf(found);
    }
}
